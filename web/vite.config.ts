import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  server: { host: "127.0.0.1", proxy: { "/api": "http://127.0.0.1:8421" } },
  build: { chunkSizeWarningLimit: 1000 },
});
