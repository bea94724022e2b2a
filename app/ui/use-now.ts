import { useEffect, useState } from "react";

/** The server's time, every `periodMs`; the loader's moment until the page is live. */
export function useNow(read: () => number, first: number, periodMs: number): number {
  const [value, setValue] = useState(first);
  useEffect(() => {
    setValue(read());
    const timer = window.setInterval(() => setValue(read()), periodMs);
    return () => window.clearInterval(timer);
  }, [read, periodMs]);
  return value;
}
