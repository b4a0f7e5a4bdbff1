import { Client } from "pg";

const WORDS = 60_000;
const WORDS_A_MESSAGE = 20;

/**
 * Gives the messages of a database words that are as rare as those of letters are: a made-up vocabulary, of which some are
 * in every tenth message and most in a handful. Rows only; the index is built again afterwards.
 */
export async function fillSearchWords(url: string): Promise<void> {
  const client = new Client({ connectionString: url });
  await client.connect();
  await client.query("set synchronous_commit = off; set maintenance_work_mem = '512MB'");
  await client.query("drop index message_search_vector");
  await client.query(`
    create table bench_word as select n, (array['ba','ke','li','mo','ru','sta','tre','vi','nor','pel','gra','wen','cho','dul','fa','hi'])[1 + n % 16]
      || (array['la','ne','ri','so','tu','ck','mp','nd','rt','sh','ve','xi','yo','zu','qua','ple'])[1 + (n / 16) % 16]
      || (array['','n','s','t','r','ly','ing','ed','er','or','um','ix','at','el','on','is'])[1 + (n / 256) % 16]
      || case when n >= 4096 then to_hex(n / 4096) else '' end as word
    from generate_series(0, ${WORDS - 1}) n`);
  await client.query("create unique index on bench_word (n)");
  await client.query(`
    update message_search set vector = given.vector from (
      select known.message_id, to_tsvector('simple', string_agg(word, ' ')) as vector
      from message_search known
        cross join lateral (select floor(${WORDS} * power(random(), 5))::int as n
          from generate_series(1, ${WORDS_A_MESSAGE}) where known.message_id is not null) drawn
        join bench_word on bench_word.n = drawn.n
      group by known.message_id) given
    where given.message_id = message_search.message_id`);
  await client.query("create index message_search_vector on message_search using gin (vector)");
  await client.query("vacuum analyze");
  await client.end();
}

/** So many questions as people ask them: a word, the beginning of one, two words. */
export async function searchQuestions(url: string, count: number): Promise<string[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  const { rows } = await client.query<{ word: string }>(
    "select word from bench_word order by md5(n::text || 'drawn') limit $1",
    [count],
  );
  await client.end();
  return rows.map(({ word }, at) => {
    const other = rows[(at + 7) % count]?.word ?? "";
    return [word, `${word.slice(0, 3 + (at % 4))}*`, `${word} ${other}`][at % 3] ?? word;
  });
}
