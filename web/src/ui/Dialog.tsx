import { X } from "lucide-react";
import { Dialog as Radix } from "radix-ui";
import { type ReactNode, useEffect, useRef } from "react";

/** A dialog: title, one sentence, content. Esc and the cross close it. */
export function Dialog({
  open,
  onClose,
  title,
  about,
  children,
  wide = false,
}: {
  open: boolean;
  onClose: () => void;
  title: string;
  about?: string;
  children: ReactNode;
  wide?: boolean;
}) {
  // the focus goes back to what opened the dialog, also when the dialog is taken away with its page part
  const opener = useRef<Element>(null);
  if (open && !opener.current) opener.current = document.activeElement;
  useEffect(() => {
    if (!open) return;
    return () => {
      const back = opener.current;
      opener.current = null;
      requestAnimationFrame(() => back instanceof HTMLElement && back.isConnected && back.focus());
    };
  }, [open]);
  return (
    <Radix.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <Radix.Portal>
        <Radix.Overlay className="fixed inset-0 z-40 bg-(--shade)" />
        <Radix.Content
          className={`fixed top-[8vh] left-1/2 z-50 max-h-[84vh] w-[min(94vw,${wide ? "860px" : "540px"})] -translate-x-1/2 overflow-auto rounded-[4px] border border-rule bg-sheet p-5 shadow-xl`}
          style={{ width: `min(94vw, ${wide ? 860 : 540}px)` }}
          {...(about ? {} : { "aria-describedby": undefined })}
          // a message that came up over the dialog would take Escape for itself
          onKeyDown={(e) => {
            if (e.key !== "Escape" || !e.currentTarget.contains(e.target as Node)) return;
            // it is answered: what lies under the dialog stays
            e.preventDefault();
            onClose();
          }}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <div>
              <Radix.Title className="text-[18px] font-bold">{title}</Radix.Title>
              {about && <Radix.Description className="text-[14px] text-ink-2">{about}</Radix.Description>}
            </div>
            <Radix.Close className="rounded p-1 text-ink-2 hover:text-ink" aria-label="Close">
              <X className="size-5" />
            </Radix.Close>
          </div>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
