/**
 * The balance of an account before a day, as SQL: whole months from their kept sums, the days of the last month one by
 * one, so that it costs the same however old the books are. The arguments are names and parameters of ours.
 * @param client the client's id
 * @param inclusive whether the day itself counts
 */
export function balanceSql(client: string, account: string, day: string, inclusive: boolean): string {
  const month = `substr(${day}, 1, 7)`;
  return `(coalesce((SELECT sum(m.amount) FROM month_sums m WHERE m.account_id = ${account} AND m.month < ${month}), 0)
    + coalesce((SELECT sum(q.amount) FROM postings q WHERE q.client_id = ${client} AND q.live = 1
        AND q.account_id = ${account} AND q.date >= ${month} AND q.date ${inclusive ? "<=" : "<"} ${day}), 0))`;
}
