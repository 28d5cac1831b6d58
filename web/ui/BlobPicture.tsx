import { useEffect, useRef } from 'react';

/** A picture that only this device has yet. */
export function BlobPicture({ blob, alt, className }: { blob: Blob; alt: string; className?: string }) {
  const picture = useRef<HTMLImageElement>(null);
  useEffect(() => {
    const url = URL.createObjectURL(blob);
    if (picture.current) picture.current.src = url;
    return () => URL.revokeObjectURL(url);
  }, [blob]);
  // eslint-disable-next-line @next/next/no-img-element -- of this device, no address that an optimiser could fetch
  return <img ref={picture} className={className} alt={alt} />;
}
