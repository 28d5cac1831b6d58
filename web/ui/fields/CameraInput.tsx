/** The kinds of picture that are kept as photos: a phone that has another one hands over a copy in one of these. */
const PHOTO_KINDS = 'image/jpeg,image/png,image/webp';

/**
 * Takes one picture with the device's camera, or one of its pictures. Stands in a label; label: a name of its own, where the label says more.
 * onNone: it is a field of a form, where the picture stays chosen until it is let go; without it each picture is an act of its own.
 */
export function CameraInput({
  label,
  isAny = false,
  isDisabled = false,
  onPicture,
  onNone,
}: {
  label?: string;
  /** also a kind that is not kept: it is only looked at */
  isAny?: boolean;
  isDisabled?: boolean;
  onPicture: (picture: File) => void;
  onNone?: () => void;
}) {
  return (
    <input
      type="file"
      aria-label={label}
      accept={isAny ? 'image/*' : PHOTO_KINDS}
      capture="environment"
      disabled={isDisabled}
      onChange={({ target }) => {
        const picture = target.files?.[0];
        // the same picture may be chosen once more
        if (!onNone) target.value = '';
        if (picture) onPicture(picture);
        else onNone?.();
      }}
    />
  );
}
