import { Camera } from "lucide-react";
import { useRef } from "react";

/** Opens the camera of a phone, or the files where there is none. */
export function Take({
  what,
  isShort = false,
  onTaken,
}: {
  what: string;
  isShort?: boolean;
  onTaken: (files: readonly File[]) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        className={`quiet-link inline-flex items-center gap-1.5 ${isShort ? "min-h-6" : "min-h-11 md:min-h-6"}`}
        aria-label={`Take a photo of ${what}`}
        onClick={() => input.current?.click()}
      >
        <Camera className="size-4" aria-hidden /> photo
      </button>
      <input
        ref={input}
        type="file"
        accept="image/*"
        capture="environment"
        multiple
        className="hidden"
        aria-label={`Photos of ${what}`}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = "";
          if (files.length > 0) onTaken(files);
        }}
      />
    </>
  );
}
