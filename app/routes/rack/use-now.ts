import { useEffect, useState } from "react";

/** The server's time, four times a second; the loader's moment until the page is live. */
export function useNow(read: () => number, first: number): number {
  const [value, setValue] = useState(first);
  useEffect(() => {
    setValue(read());
    const timer = window.setInterval(() => setValue(read()), 250);
    return () => window.clearInterval(timer);
  }, [read]);
  return value;
}
