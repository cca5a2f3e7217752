/** Dates as the member's browser writes them, in English: the interface speaks no other language. */
import { type FormatOptions, format, type Locale } from "date-fns";
import { enAU, enCA, enGB, enIE, enIN, enNZ, enUS, enZA } from "date-fns/locale";

const LOCALES: Readonly<Record<string, Locale>> = {
  "en-AU": enAU,
  "en-CA": enCA,
  "en-GB": enGB,
  "en-IE": enIE,
  "en-IN": enIN,
  "en-NZ": enNZ,
  "en-US": enUS,
  "en-ZA": enZA,
};

/** The first of the member's languages that is an English one; British where none is. */
export function localeOf(languages: readonly string[]): Locale {
  for (const language of languages) if (LOCALES[language]) return LOCALES[language];
  return enGB;
}

/** Does this locale put the month before the day? */
const monthFirst = ({ code }: Locale) => code === "en-US";

const locale = localeOf(typeof navigator === "undefined" ? [] : navigator.languages);
const told = (date: Date | string, pattern: string, of: Locale) =>
  format(new Date(date), pattern, { locale: of } satisfies FormatOptions);

/** "29 November 2026" */
export function longDate(date: Date | string, of = locale): string {
  return told(date, monthFirst(of) ? "MMMM d, yyyy" : "d MMMM yyyy", of);
}

/** "Sun 29 Nov" */
export function workingDay(date: Date, of = locale): string {
  return told(date, monthFirst(of) ? "EEE, MMM d" : "EEE d MMM", of);
}

/** "29 Nov, 14:05" */
export function moment(date: Date | string, of = locale): string {
  return told(date, monthFirst(of) ? "MMM d, p" : "d MMM, p", of);
}

/** "14:05" */
export function timeOfDay(date: Date | string, of = locale): string {
  return told(date, "p", of);
}

/** The day as stores and lists write it, by this machine's own calendar: "2026-11-30". */
export function today(): string {
  return format(new Date(), "yyyy-MM-dd");
}
