import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, dataOf } from "../api/client";

/** Typing rests so long before a layout is tried. */
const REST = 250;

/** What a layout makes of some invoices, anew after each change; what it made before stays until then. */
export function useLayoutTrial(text: string, invoices: number[] | null) {
  const [rested, setRested] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setRested(text), REST);
    return () => clearTimeout(timer);
  }, [text]);
  return useQuery({
    queryKey: ["layout-trial", rested, invoices],
    queryFn: () =>
      dataOf(api.POST("/api/v1/posting-layouts/trial", { body: { document: rested, invoices } })),
    enabled: rested.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
}
