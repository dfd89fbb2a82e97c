import type { FoundRow } from "@kobbin/contract";
import useSWR from "swr";
import { http } from "./http.ts";

/** What the shop's data holds for some words. */
export const useFound = (words: string) =>
  useSWR<FoundRow[]>(
    words.trim() === "" ? null : `/api/find?q=${encodeURIComponent(words.trim())}`,
    http.get,
    {
      keepPreviousData: true,
      dedupingInterval: 5000,
    },
  );
