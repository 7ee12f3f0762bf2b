package ironing.core.trouble;

import ironing.core.trouble.Members.Need;
import ironing.core.trouble.TriedSets.Tried;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.function.Function;

/** Members of which some, with what they need, make a fault together. */
record FaultyWorld(Members members, BitSet culprits, List<Integer> ranking) {

  /**
   * @param inFront whether one of the culprits stands in the first quarter of the ranking
   */
  static FaultyWorld random(Random random, int most, int mostCulprits, boolean inFront) {
    int n = 4 + random.nextInt(most - 3);
    List<Integer> names = ranking(random, n);
    List<Need> needs = new ArrayList<>();
    for (int i = 1; i < n; i++)
      while (random.nextInt(3) == 0)
        needs.add(new Need(names.get(i), names.get(random.nextInt(i))));
    BitSet culprits = new BitSet();
    int many = 1 + random.nextInt(mostCulprits);
    while (culprits.cardinality() < many) culprits.set(random.nextInt(n));
    List<Integer> ranking = ranking(random, n);
    if (inFront) {
      Integer one = culprits.nextSetBit(random.nextInt(culprits.length()));
      ranking.remove(one);
      ranking.add(random.nextInt(Math.max(1, n / 4)), one);
    }
    return new FaultyWorld(new Members(n, needs), culprits, ranking);
  }

  private static List<Integer> ranking(Random random, int n) {
    List<Integer> out = new ArrayList<>();
    for (int i = 0; i < n; i++) out.add(i);
    Collections.shuffle(out, random);
    return out;
  }

  boolean shows(BitSet set) {
    BitSet missing = (BitSet) culprits.clone();
    missing.andNot(set);
    return missing.isEmpty();
  }

  BitSet smallest() {
    return members.closure(culprits);
  }

  double[] suspicion() {
    double[] out = new double[members.count()];
    for (int rank = 0; rank < ranking.size(); rank++)
      out[ranking.get(rank)] = Suspicions.ofRank(rank);
    return out;
  }

  FaultSearch search() {
    return new FaultSearch(members, suspicion(), true);
  }

  /** How a whole search went. */
  record Course(Next end, int steps, int proofs, List<Next.Try> asked) {}

  Course followed(Function<BitSet, Answer> game) {
    return followed(search(), game);
  }

  static Course followed(FaultSearch search, Function<BitSet, Answer> game) {
    List<Tried> tries = new ArrayList<>();
    List<Next.Try> asked = new ArrayList<>();
    int steps = 0, proofs = 0;
    while (true) {
      Next next = search.next(new TriedSets(tries));
      if (!(next instanceof Next.Try t)) return new Course(next, steps, proofs, asked);
      asked.add(t);
      if (t.why().isProof()) proofs++;
      else steps++;
      tries.add(new Tried(t.set(), game.apply(t.set())));
    }
  }
}
