import type { End } from 'wattograph-core';
import { askReason } from '../../ui/fields/askReason';
import { Pick } from '../../ui/fields/Pick';

/** no id holds a space */
const NOTHING = 'nothing at all';

/** A part computed, chosen by hand with a reason, or none with a reason. */
export function PartPick({
  label,
  pin,
  parts,
  onPin,
}: {
  label: string;
  pin: End['bootPin'];
  parts: readonly { id: string; name: string }[];
  onPin: (pin: End['bootPin']) => void;
}) {
  const choose = (choice: string | null) => {
    if (choice === null) return onPin(null);
    const itemId = choice === NOTHING ? null : choice;
    askReason(`Why ${parts.find(({ id }) => id === itemId)?.name ?? 'nothing'} there?`, (reason) => onPin({ itemId, reason }));
  };
  return (
    <Pick
      label={label}
      value={pin === null ? null : (pin.itemId ?? NOTHING)}
      none="computed"
      options={[{ value: NOTHING, label: 'nothing' }, ...parts.map(({ id, name }) => ({ value: id, label: name }))]}
      onChange={choose}
    />
  );
}
