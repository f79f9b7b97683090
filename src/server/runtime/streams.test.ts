import { keepStream, MOST_OF_ALL, MOST_OF_ONE } from "./streams";

/** Opens a stream; ending it lets it go, as the route does. */
function stream(owner: string, ended: string[], name: string): () => void {
  const letGo: () => void = keepStream(owner, () => {
    ended.push(name);
    letGo();
  });
  return letGo;
}

test("one session keeps its newest streams, and takes none from another", () => {
  const ended: string[] = [];
  const all = Array.from({ length: MOST_OF_ONE + 3 }, (_, at) => stream("nils", ended, `nils ${at}`));
  all.push(stream("edda", ended, "edda 0"));
  expect(ended).toEqual(["nils 0", "nils 1", "nils 2"]);
  all.forEach((letGo) => letGo());
});

test("all sessions together keep no more than the machine carries", () => {
  const ended: string[] = [];
  const all = Array.from({ length: MOST_OF_ALL + 2 }, (_, at) => stream(`person ${at}`, ended, `${at}`));
  expect(ended).toEqual(["0", "1"]);
  all.forEach((letGo) => letGo());
});

test("what was let go counts no more", () => {
  const ended: string[] = [];
  for (let at = 0; at < 3 * MOST_OF_ONE; at++) stream("nils", ended, `${at}`)();
  expect(ended).toEqual([]);
});
