/** What several parts of the desk ask the handbook for. */
import { useQuery } from "@tanstack/react-query";
import { findInHandbook, handbookPage, type LeafOut, listHandbook } from "../api/client";

/** Every chapter with its pages. */
export const useChapters = () =>
  useQuery({ queryKey: ["handbook"], queryFn: () => listHandbook(), staleTime: Infinity }).data?.chapters;

/** The pages in which some words stand; none while nothing is looked for. */
export const useFound = (words: string) =>
  useQuery({
    queryKey: ["handbook", "find", words],
    queryFn: ({ signal }) => findInHandbook({ query: { words }, signal }),
    enabled: words.trim() !== "",
    staleTime: Infinity,
    placeholderData: (before) => before,
  }).data?.pages;

/** A page. */
export const usePage = (chapter: string, page: string) =>
  useQuery({
    queryKey: ["handbook", chapter, page],
    queryFn: ({ signal }) => handbookPage({ query: { chapter, page }, signal }),
    staleTime: Infinity,
    retry: false,
  });

/** Where a page is. */
export const addressOf = (chapter: string, page: string) =>
  `/handbook/${encodeURIComponent(chapter)}/${encodeURIComponent(page)}`;

/** The figure of a page, as the desk draws it. */
export const figureOf = ({ chapter, key }: Pick<LeafOut, "chapter" | "key">, small = false) =>
  `/api/handbook/figure.svg?${new URLSearchParams({ chapter, page: key, small: small ? "true" : "false" })}`;
