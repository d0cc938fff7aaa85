/** So many days of visits are shown beside a name and its listings. */
export const VISITS_SHOWN_DAYS = 30;
