import { type KeyboardEvent, type PointerEvent, useState } from "react";
import type { Invoice } from "../api/client";
import { spokenName } from "../shared/amounts";
import { type Edges, edgesIn, placedIn } from "./template";

interface Props {
  page: number;
  scale: number;
  invoice: Invoice;
  /** The template, for columns whose edges it says. */
  template: string;
  /** Says where columns begin and end; null takes the edges of a column away again. The page is the invoice's, from 1. */
  move: (block: string, edges: Record<string, Edges | null>, page: number) => void;
}

interface Column {
  name: string;
  left: number;
  right: number;
}

/** How far above and below the rows an edge is drawn, in points. */
const BEYOND = 6;

/**
 * The edges between the columns of the item rows, as they were captured: to be dragged, or moved by the arrow keys (a
 * point, with Shift ten); Delete gives the place back to the headings.
 */
export function ColumnEdges({ page, scale, invoice, template, move }: Props) {
  const blocks = [...new Set(invoice.lines.map((line) => line.block))];
  const pages = invoice.capturedPages ?? [];
  const own = pages.indexOf(page) + 1;
  return blocks.map((block) => {
    const said = edgesIn(template, block, own, pages.length);
    const placed = placedIn(template, block);
    const cells = invoice.lines
      .filter((line) => line.block === block)
      .flatMap((line) => Object.entries(line.cells))
      .flatMap(([name, { box, page: of }]) =>
        of === page && box && placed.has(name) ? [{ name, box }] : [],
      );
    const columns = columnsOf(cells, said);
    const top = Math.min(...cells.map((cell) => cell.box.top)) - BEYOND;
    const bottom = Math.max(...cells.map((cell) => cell.box.bottom)) + BEYOND;
    return columns.slice(1).map((right, index) => {
      const left = columns[index] as Column;
      const at = (left.right + right.left) / 2;
      return (
        <Edge
          key={`${block} ${left.name} ${right.name}`}
          label={`Between ${spokenName(left.name)} and ${spokenName(right.name)}`}
          at={at}
          isSaid={left.name in said || right.name in said}
          from={left.left}
          to={right.right}
          top={top}
          bottom={bottom}
          scale={scale}
          move={(x) =>
            move(
              block,
              {
                [left.name]: [before(columns, index), x],
                [right.name]: [x, after(columns, index + 1)],
              },
              own,
            )
          }
          remove={() => move(block, { [left.name]: null, [right.name]: null }, own)}
        />
      );
    });
  });
}

/** Columns from left to right, by their edges if the template says some, else by what was captured. */
function columnsOf(
  cells: { name: string; box: { left: number; right: number } }[],
  said: Record<string, Edges>,
): Column[] {
  const columns = new Map<string, Column>();
  for (const { name, box } of cells) {
    const known = columns.get(name);
    columns.set(name, {
      name,
      left: Math.min(known?.left ?? box.left, box.left),
      right: Math.max(known?.right ?? box.right, box.right),
    });
  }
  for (const column of columns.values()) {
    const edges = said[column.name];
    if (edges) {
      [column.left, column.right] = edges;
    }
  }
  return [...columns.values()].sort((a, b) => a.left - b.left);
}

const before = (columns: Column[], index: number) => {
  const [left, own] = [columns[index - 1], columns[index] as Column];
  return Math.round(left ? (left.right + own.left) / 2 : own.left - BEYOND);
};

const after = (columns: Column[], index: number) => {
  const [own, right] = [columns[index] as Column, columns[index + 1]];
  return Math.round(right ? (own.right + right.left) / 2 : own.right + BEYOND);
};

interface EdgeProps {
  label: string;
  at: number;
  isSaid: boolean;
  from: number;
  to: number;
  top: number;
  bottom: number;
  scale: number;
  move: (x: number) => void;
  remove: () => void;
}

function Edge({ label, at, isSaid, from, to, top, bottom, scale, move, remove }: EdgeProps) {
  const [dragged, setDragged] = useState<number | null>(null);
  const x = dragged ?? at;
  const within = (next: number) => Math.round(Math.min(to - 1, Math.max(from + 1, next)));

  function press(event: KeyboardEvent) {
    const step = event.shiftKey ? 10 : 1;
    if (event.key === "ArrowLeft" || event.key === "ArrowRight") {
      event.preventDefault();
      event.stopPropagation();
      move(within(at + (event.key === "ArrowLeft" ? -step : step)));
    } else if (event.key === "Delete" && isSaid) {
      event.preventDefault();
      remove();
    }
  }

  function drag(event: PointerEvent<HTMLDivElement>) {
    const page = event.currentTarget.parentElement?.getBoundingClientRect();
    if (dragged !== null && page) {
      setDragged(within((event.clientX - page.left) / scale));
    }
  }

  return (
    <div
      className={isSaid ? "edge said" : "edge"}
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuemin={Math.round(from)}
      aria-valuemax={Math.round(to)}
      aria-valuenow={Math.round(x)}
      aria-valuetext={`${Math.round(x)} points from the left${isSaid ? ", said by the template" : ""}`}
      title={`${label}: ${Math.round(x)} points`}
      style={{ left: x * scale - 4, top: top * scale, height: (bottom - top) * scale }}
      onKeyDown={press}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setDragged(at);
      }}
      onPointerMove={drag}
      onPointerUp={() => {
        if (dragged !== null && dragged !== Math.round(at)) {
          move(dragged);
        }
        setDragged(null);
      }}
    />
  );
}
