import { create } from "qrcode";
import { useMemo } from "react";

/** A square code of a text that any scanner reads, with the quiet zone it needs. @param mm of its side on paper */
export function Code({ text, mm, label }: { text: string; mm: number; label: string }) {
  const { path, size } = useMemo(() => drawn(text), [text]);
  return (
    <svg
      width={`${mm}mm`}
      height={`${mm}mm`}
      viewBox={`-2 -2 ${size + 4} ${size + 4}`}
      role="img"
      aria-label={label}
      shapeRendering="crispEdges"
    >
      {/* paper is white and ink black, whatever the page wears */}
      <path d={`M-2 -2h${size + 4}v${size + 4}h${-size - 4}z`} fill="#fff" />
      <path d={path} fill="#000" />
    </svg>
  );
}

function drawn(text: string): { path: string; size: number } {
  const { modules } = create(text, { errorCorrectionLevel: "M" });
  const { size, data } = modules;
  let path = "";
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++) if (data[y * size + x]) path += `M${x} ${y}h1v1h-1z`;
  return { path, size };
}
