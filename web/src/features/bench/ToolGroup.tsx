import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { ChevronDown } from "lucide-react";
import { useEffect, useState } from "react";
import type { Tool } from "../../store";
import { Button } from "../../ui/Button";

interface Props {
  trade: string | null;
  tools: { tool: Tool; label: string }[];
  /** Whether only one of them has a button, and the others a menu beside it. */
  apart: boolean;
  chosen: Tool;
  onChoose: (tool: Tool) => void;
}

/** The tools of a trade: each with a button, or the one that was used last, and the others in a menu. */
export function ToolGroup({ trade, tools, apart, chosen, onChoose }: Props) {
  const [last, setLast] = useState<Tool | null>(null);
  const own = tools.find((item) => item.tool === chosen);
  useEffect(() => {
    if (own) setLast(own.tool);
  }, [own]);
  const shown = apart ? [tools.find((item) => item.tool === last) ?? tools[0]] : tools;
  return (
    <div className="flex shrink-0">
      {shown.map((item) => (
        <Button
          key={item.tool}
          tone={chosen === item.tool ? "chosen" : "plain"}
          aria-pressed={chosen === item.tool}
          className={`!px-2 ${apart && tools.length > 1 ? "rounded-r-none border-r-0" : ""}`}
          onClick={() => onChoose(item.tool)}
        >
          {item.label}
        </Button>
      ))}
      {apart && tools.length > 1 && (
        <Menu>
          <MenuButton
            aria-label={`Tools: ${trade?.toLowerCase()}`}
            title={`${trade}: ${tools.map((item) => item.label.toLowerCase()).join(", ")}`}
            className="grid h-7 w-5 place-items-center rounded-r-md border border-rule bg-paper hover:border-quiet"
          >
            <ChevronDown size={12} aria-hidden />
          </MenuButton>
          <MenuItems
            anchor={{ to: "bottom start", gap: 4 }}
            className="z-30 min-w-36 rounded-md border border-rule bg-field py-1 text-[12.5px] outline-none"
          >
            <p className="px-3 pb-1 text-[11px] text-quiet">{trade}</p>
            {tools.map((item) => (
              <MenuItem key={item.tool}>
                <button
                  type="button"
                  onClick={() => onChoose(item.tool)}
                  className="block w-full px-3 py-1.5 text-left data-focus:bg-ground"
                >
                  {item.label}
                </button>
              </MenuItem>
            ))}
          </MenuItems>
        </Menu>
      )}
    </div>
  );
}
