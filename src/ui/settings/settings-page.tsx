"use client";
/** The settings of the shop: its name on papers, its currency, the unit that new jobs begin with. */
import { LENGTH_UNITS, type LengthUnit } from "@/core/measure";
import { Chooser } from "../common/chooser";
import { HomeFrame } from "../common/home-frame";
import { useSentState } from "../common/sent-state";
import { TextField } from "../common/text-field";
import { UNIT_NAMES } from "../jobs/unit-names";

export type ShopSettings = { readonly name: string; readonly currency: string; readonly unit: LengthUnit };

export function SettingsPage({ shop: saved }: { readonly shop: ShopSettings }) {
  const [shop, send] = useSentState(saved, "/api/settings");
  const change = (set: Partial<ShopSettings>): null => {
    send((now) => ({ ...now, ...set }));
    return null;
  };
  return (
    <HomeFrame current="Settings">
      <div className="mx-auto max-w-[1240px] px-6 py-6">
        <h1 className="font-semibold font-slab text-[26px]">Settings</h1>
        <p className="mt-1 text-ink-soft">
          For the whole shop. Jobs and stockroom entries have their own unit.
        </p>
        <div className="mt-4 grid w-[520px] gap-4 border border-seam bg-leaf p-4">
          <TextField
            label="Name of the shop, on papers"
            value={shop.name}
            placeholder="none"
            onCommit={(text) =>
              text.trim().length > 80 ? "At most 80 characters." : change({ name: text.trim() })
            }
          />
          <TextField
            label="Currency of all prices"
            value={shop.currency}
            onCommit={(text) => {
              const currency = text.trim();
              if (currency === "") return "Enter a currency.";
              return currency.length > 8 ? "At most 8 characters." : change({ currency });
            }}
          />
          <Chooser
            label="Unit of new jobs"
            value={shop.unit}
            choices={LENGTH_UNITS.map((value) => ({ value, label: UNIT_NAMES[value] }))}
            onChoose={(unit) => change({ unit })}
          />
        </div>
      </div>
    </HomeFrame>
  );
}
