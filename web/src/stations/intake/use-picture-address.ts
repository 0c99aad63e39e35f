import { useEffect, useState } from 'react';

/** An address for a picture that is nowhere but here, for as long as it is shown. */
export function usePictureAddress(picture: Blob): string | null {
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    const made = URL.createObjectURL(picture);
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [picture]);
  return address;
}
