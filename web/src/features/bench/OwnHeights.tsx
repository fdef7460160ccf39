import { usePick } from "../../store";
import { useBench } from "./useBench";
import { extentOf, LADDER } from "./viewport";

const SIZE = 14;

/** Marks on what has a height of its own, instead of that of its level or kind; a click tells why. Never printed. */
export function OwnHeights() {
  const { bench, view, viewport, panes, point: onHover } = useBench();
  const { set } = usePick("set");
  if (view?.kind !== "elevation") return null;
  const marks = bench.own_heights.flatMap((own) => {
    const box = extentOf(view, (part) => part.split("/")[0] === own.element);
    if (!box) return [];
    const left = viewport.u + box.u1 * viewport.k - SIZE / 2;
    const top = viewport.v - box.y1 * viewport.k - SIZE - 3;
    const inside = top > panes.viewTop && top < panes.viewBottom - SIZE && left > LADDER;
    return inside ? [{ own, left, top }] : [];
  });
  return (
    <>
      {marks.map(({ own, left, top }, index) => {
        // Those at one place stand beside each other.
        const before = marks.slice(0, index).filter((held) => Math.hypot(held.left - left, held.top - top) < SIZE);
        return (
          <button
            key={`${own.element} ${own.sum}`}
            type="button"
            aria-label={`Own height: ${own.words}`}
            title={own.words}
            onClick={() => set({ selection: own.element })}
            onPointerEnter={() => onHover(own.sum)}
            onPointerLeave={() => onHover(null)}
            className="absolute grid place-items-center rounded-full border border-check bg-check-ground text-[10px] font-semibold leading-none text-check"
            style={{ left: left + before.length * (SIZE + 2), top, width: SIZE, height: SIZE }}
          >
            ↕
          </button>
        );
      })}
    </>
  );
}
