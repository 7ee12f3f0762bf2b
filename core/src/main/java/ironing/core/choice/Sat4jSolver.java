package ironing.core.choice;

import java.math.BigInteger;
import java.util.BitSet;
import org.sat4j.core.Vec;
import org.sat4j.core.VecInt;
import org.sat4j.minisat.core.ILits;
import org.sat4j.pb.SolverFactory;
import org.sat4j.pb.core.PBSolver;
import org.sat4j.specs.ContradictionException;
import org.sat4j.specs.IVecInt;
import org.sat4j.specs.TimeoutException;

/** {@link ClauseSolver} by the pseudo-Boolean solver of sat4j. */
final class Sat4jSolver implements ClauseSolver {
  /** How much is tried between two looks at the clock. */
  private static final int CONFLICTS = 2_000;

  private final PBSolver solver = SolverFactory.newDefault();
  private final long deadline;
  private final BitSet model = new BitSet();
  private int variables;
  private boolean contradicts;

  /**
   * @param deadline of {@link System#nanoTime()}
   */
  Sat4jSolver(long deadline) {
    this.deadline = deadline;
    solver.setTimeoutOnConflicts(CONFLICTS);
  }

  @Override
  public int variable() {
    solver.newVar(++variables);
    return variables;
  }

  @Override
  public void clause(int... literals) {
    try {
      if (literals.length == 0) contradicts = true;
      else solver.addClause(new VecInt(literals));
    } catch (ContradictionException e) {
      contradicts = true;
    }
  }

  @Override
  public void atMost(int[] literals, int[] weights, int bound, int guard) {
    long sum = 0;
    for (int w : weights) sum += w;
    if (sum <= bound) return;
    VecInt all = new VecInt();
    Vec<BigInteger> coefficients = new Vec<>();
    for (int i = 0; i < literals.length; i++) {
      all.push(literals[i]);
      coefficients.push(BigInteger.valueOf(weights[i]));
    }
    long most = bound;
    if (guard != 0) {
      all.push(guard);
      coefficients.push(BigInteger.valueOf(sum - bound));
      most = sum;
    }
    try {
      solver.addPseudoBoolean(all, coefficients, false, BigInteger.valueOf(most));
    } catch (ContradictionException e) {
      contradicts = true;
    }
  }

  @Override
  public boolean solve(int... assumptions) throws GaveUp {
    while (!contradicts) {
      if (System.nanoTime() - deadline > 0) throw new GaveUp();
      try {
        if (!solver.isSatisfiable(new VecInt(assumptions))) return false;
        model.clear();
        for (int literal : solver.model()) if (literal > 0) model.set(literal);
        return true;
      } catch (TimeoutException e) {
        // what was learned is kept: the next round goes on from it
      }
    }
    return false;
  }

  @Override
  public int[] reason() {
    IVecInt found = contradicts ? null : solver.unsatExplanation();
    if (found == null) return new int[0];
    int[] out = new int[found.size()];
    for (int i = 0; i < out.length; i++) out[i] = found.get(i);
    return out;
  }

  @Override
  public boolean isSettled(int literal) {
    ILits known = solver.getVocabulary();
    int its = known.getFromPool(literal);
    // level 0 is what follows without any assumption
    return known.isSatisfied(its) && known.getLevel(its) == 0;
  }

  @Override
  public boolean holds(int literal) {
    return model.get(Math.abs(literal)) == literal > 0;
  }
}
