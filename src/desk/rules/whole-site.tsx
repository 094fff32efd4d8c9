'use client';
import { X } from 'lucide-react';
import { type Pointed, wholeSiteGate, withWholeSite } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { PagePick } from './page-pick';

/** One switch, and what stays open. */
export function WholeSite() {
  const { draft, outline } = useDesk();
  const { policy } = draft;
  const gate = wholeSiteGate(policy);
  // Switched off and on again, what stayed open stays open.
  const before = wholeSiteGate(draft.live.policy);
  const pointed =
    (gate ?? before)?.what.except.filter((one): one is Pointed => one.kind !== 'selection') ?? [];
  return (
    <>
      <label className="flex items-baseline gap-2">
        <input
          type="checkbox"
          role="switch"
          aria-checked={gate !== null}
          checked={gate !== null}
          onChange={(event) => draft.edit(withWholeSite(policy, event.target.checked, pointed))}
        />
        <span>
          Every page, post and file is for members; guests are sent to sign in and back.
          <span className="note block">
            Signing in, signing up, a new password and passphrases are always open: nothing can lock them.
          </span>
        </span>
      </label>
      {gate && (
        <div className="grid gap-1.5 border-thin border-l pl-3">
          <p className="text-quiet">Stays open:</p>
          <ul aria-label="Stays open" className="grid gap-1">
            {pointed.map((one) => {
              const title = outline.items.get(one.item)?.title ?? 'a page that no longer exists';
              return (
                <li key={one.item} className="flex items-center gap-2">
                  <span className="font-semibold">{title}</span>
                  <Button
                    weight="quiet"
                    size="small"
                    aria-label={`Close ${title} as well`}
                    onClick={() =>
                      draft.edit(
                        withWholeSite(
                          policy,
                          true,
                          pointed.filter((other) => other !== one),
                        ),
                      )
                    }
                  >
                    <X size={14} aria-hidden="true" />
                  </Button>
                </li>
              );
            })}
          </ul>
          <PagePick
            label="Keep a page open"
            value=""
            none="keep a page open …"
            onPick={(item) =>
              draft.edit(
                withWholeSite(policy, true, [
                  ...pointed.filter((one) => one.item !== item),
                  { kind: 'item', item },
                ]),
              )
            }
          />
        </div>
      )}
    </>
  );
}
