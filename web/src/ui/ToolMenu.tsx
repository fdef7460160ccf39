import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { ChevronDown } from "lucide-react";

interface Item {
  id: string;
  label: string;
}

/** A button that opens a few tools of one sort; it bears the name of the one that is chosen. */
export function ToolMenu({
  label,
  items,
  chosen,
  onChoose,
}: {
  label: string;
  items: Item[];
  chosen: string;
  onChoose: (id: string) => void;
}) {
  const own = items.find((item) => item.id === chosen);
  const look = own ? "border-line bg-line text-paper" : "border-rule bg-paper text-ink hover:border-quiet";
  return (
    <Menu>
      <MenuButton
        aria-label={own ? `${label}: ${own.label}` : label}
        className={`inline-flex h-7 items-center gap-1 whitespace-nowrap rounded-md border px-1.5 text-[12px] ${look}`}
      >
        {own?.label ?? label}
        <ChevronDown size={12} aria-hidden />
      </MenuButton>
      <MenuItems
        anchor={{ to: "bottom start", gap: 4 }}
        className="z-30 min-w-36 rounded-md border border-rule bg-field py-1 text-[12.5px] outline-none"
      >
        {items.map((item) => (
          <MenuItem key={item.id}>
            <button
              type="button"
              onClick={() => onChoose(item.id)}
              className="block w-full px-3 py-1.5 text-left data-focus:bg-ground"
            >
              {item.label}
            </button>
          </MenuItem>
        ))}
      </MenuItems>
    </Menu>
  );
}
