/** so long a job that was deleted can be brought back */
export const BIN_DAYS = 30;
