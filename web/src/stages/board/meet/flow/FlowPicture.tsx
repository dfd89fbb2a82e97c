import type { Flow, FlowPicture as Heat, RunBoard } from "@kobbin/core";
import { useMemo } from "react";
import { DrawnBoard } from "../../../../proof/DrawnBoard.tsx";
import type { ToPicture } from "../../../../proof/drawnParts.ts";
import { useTheme } from "../../../../ui/useTheme.ts";
import { amps } from "./flowWords.ts";

const SIZE = [560, 390] as const;
const SMALL = [350, 244] as const;
/** From copper with next to nothing to copper with the most: red, green, blue, by day and by night. */
const RAMP = {
  light: [
    [226, 206, 184],
    [214, 138, 66],
    [150, 22, 30],
  ],
  dark: [
    [92, 78, 64],
    [214, 138, 66],
    [255, 226, 190],
  ],
} as const;

/** A layer of the picture as an image, its lowest row last. */
function imageOf(p: Heat, heat: Uint8Array, ramp: (typeof RAMP)["light" | "dark"]): string {
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [p.nx, p.ny];
  const c = canvas.getContext("2d")!;
  const data = c.createImageData(p.nx, p.ny);
  for (let j = 0; j < p.ny; j++)
    for (let i = 0; i < p.nx; i++) {
      const v = heat[j * p.nx + i]!;
      if (v === 0) continue;
      const o = 4 * ((p.ny - 1 - j) * p.nx + i);
      // little things are seen too: by the root of what flows
      const t = 2 * Math.sqrt((v - 1) / 254);
      const [a, b] = t <= 1 ? [ramp[0], ramp[1]] : [ramp[1], ramp[2]];
      const s = t <= 1 ? t : t - 1;
      for (let k = 0; k < 3; k++) data.data[o + k] = a[k]! + s * (b[k]! - a[k]!);
      data.data[o + 3] = 255;
    }
  c.putImageData(data, 0, 0);
  return canvas.toDataURL();
}

/** Where a net's current flows on one side: the more through each millimetre, the warmer; numbers where it is warmest. */
export function FlowPicture({ board, flow, side }: { board: RunBoard; flow: Flow; side: "top" | "bottom" }) {
  const { picture } = flow;
  const theme = useTheme();
  const layer = picture?.layers.find((l) => l.name === side);
  const href = useMemo(
    () => (picture && layer ? imageOf(picture, layer.heat, RAMP[theme]) : undefined),
    [picture, layer, theme],
  );
  return (
    <figure>
      <DrawnBoard board={board} side={side} size={window.innerWidth < 640 ? SMALL : SIZE}>
        {(to) => (
          <>
            <rect width="100%" height="100%" fill="var(--paper)" opacity="0.72" />
            {picture && href && <Laid picture={picture} href={href} to={to} />}
            {flow.stretches.slice(0, 5).map((s, k) => {
              if (s.layer !== side) return null;
              const [x, y] = to([(s.x1 + s.x2) / 2, (s.y1 + s.y2) / 2]);
              return <Numbered key={`${s.x1} ${s.y1} ${s.x2} ${s.y2}`} x={x} y={y} n={k + 1} />;
            })}
            {flow.holes.slice(0, 1).map((h) => {
              const [x, y] = to([h.x, h.y]);
              return (
                <circle
                  key={`${h.x} ${h.y}`}
                  cx={x}
                  cy={y}
                  r="6"
                  fill="none"
                  stroke="var(--ink)"
                  strokeWidth="1.8"
                />
              );
            })}
          </>
        )}
      </DrawnBoard>
      <figcaption className="mt-1 max-w-[560px] text-[13.5px] text-ink-2">
        {layer ? (
          <>
            <span
              aria-hidden="true"
              className="inline-block h-[10px] w-9 border border-rule align-[-1px]"
              style={{ background: `rgb(${RAMP[theme][2].join(" ")})` }}
            />{" "}
            {amps(picture!.fullMaPerMm)} a millimetre of width and more. Numbers: the warmest tracks. Ring:
            the warmest hole.
          </>
        ) : (
          `Nothing of it lies on the ${side}.`
        )}
      </figcaption>
    </figure>
  );
}

/** The image where the board has it: turned over with its side. */
function Laid({ picture: p, href, to }: { picture: Heat; href: string; to: ToPicture }) {
  const [ax, ay] = to([p.x0, p.y0 + p.ny * p.cellMm]);
  const [bx, by] = to([p.x0 + p.nx * p.cellMm, p.y0]);
  const isTurned = bx < ax;
  return (
    <image
      href={href}
      x={isTurned ? -ax : ax}
      y={ay}
      width={Math.abs(bx - ax)}
      height={Math.abs(by - ay)}
      preserveAspectRatio="none"
      transform={isTurned ? "scale(-1 1)" : undefined}
      style={{ imageRendering: "pixelated" }}
    />
  );
}

function Numbered({ x, y, n }: { x: number; y: number; n: number }) {
  return (
    <g>
      <circle cx={x} cy={y} r="9" fill="var(--ink)" stroke="var(--paper)" strokeWidth="2" />
      <text x={x} y={y + 4} textAnchor="middle" fontSize="11.5" fontWeight="700" fill="var(--paper)">
        {n}
      </text>
    </g>
  );
}
