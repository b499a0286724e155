/** Share of a standing phone's height that the picture keeps, whatever one does. */
export const PICTURE = 0.51
/** Share of a lying phone's width that a wide picture has. */
export const LYING = 0.46
/** Height of the row of buttons under a picture that has no columns beside it. */
export const ROW = 52

/** The most that a picture can have on a phone's page. */
export function placeOnPhone(page: { width: number; height: number }) {
  return page.width > page.height
    ? { width: Math.round(page.width * LYING), height: page.height - ROW }
    : { width: page.width, height: Math.round(page.height * PICTURE) - ROW }
}
