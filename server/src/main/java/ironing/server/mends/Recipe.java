package ironing.server.mends;

import ironing.core.loadorder.LoadOrder.Wish;
import ironing.core.mends.PatchScope;
import ironing.core.records.Decided;
import ironing.server.platform.MayBeAbsent;
import java.util.List;
import java.util.Map;

/**
 * What a mend is for, as it is kept.
 *
 * @param name what it is called; absent for one that was made before mends had names
 * @param scope which records a patch is for; absent for the whole profile
 * @param needs mods that a patch is only right with
 * @param clashes mods that a patch is never right with, by their ids
 * @param merge what a merge was made of; absent for others
 * @param files the game paths of combined files
 * @param carried of those into which one mod's change is carried over, which mod that is, by id
 * @param tool whose output it is; absent for others
 */
record Recipe(
    @MayBeAbsent String name,
    @MayBeAbsent PatchScope scope,
    @MayBeAbsent List<Condition> needs,
    @MayBeAbsent List<String> clashes,
    @MayBeAbsent Merge merge,
    @MayBeAbsent List<String> files,
    @MayBeAbsent Map<String, String> carried,
    @MayBeAbsent OfTool tool) {
  Recipe {
    if (scope == null) scope = PatchScope.PROFILE;
    carried = carried == null ? Map.of() : Map.copyOf(carried);
    files = files == null ? List.of() : List.copyOf(files);
    needs = needs == null ? List.of() : List.copyOf(needs);
    clashes = clashes == null ? List.of() : List.copyOf(clashes);
  }

  /**
   * A mod that must be there and on.
   *
   * @param versions a range, {@code *} for any
   * @param answer of its fitting, as question/answer, for one variant only; absent for any
   */
  record Condition(String mod, String versions, @MayBeAbsent String answer) {}

  /**
   * @param sources file names in load order
   * @param orderBefore the load order as it was wished before
   * @param decisionsBefore on records that it touches, by their old keys
   * @param decisionsAfter the keys of the decisions that stand in their place
   * @param combining whether it has the outcome of what its sources change in the same record
   * @param patchesOff patches that had nothing left to hold, and were switched off with the sources
   */
  record Merge(
      List<String> sources,
      String target,
      List<Wish> orderBefore,
      @MayBeAbsent Map<String, Map<String, Decided>> decisionsBefore,
      @MayBeAbsent List<String> decisionsAfter,
      boolean combining,
      @MayBeAbsent List<Long> patchesOff) {
    Merge {
      decisionsBefore = decisionsBefore == null ? Map.of() : decisionsBefore;
      patchesOff = patchesOff == null ? List.of() : List.copyOf(patchesOff);
      decisionsAfter = decisionsAfter == null ? List.of() : decisionsAfter;
    }
  }

  /**
   * The tool that wrote it.
   *
   * @param tool its number
   * @param reads patterns on game paths, as they were when it ran
   */
  record OfTool(long tool, List<String> reads) {}

  static Recipe ofTool(String name, OfTool tool) {
    return new Recipe(name, null, List.of(), List.of(), null, null, null, tool);
  }

  static Recipe patch(String name, PatchScope scope, List<Condition> needs, List<String> clashes) {
    return new Recipe(name, scope, needs, clashes, null, null, null, null);
  }

  static Recipe merge(String name, Merge merge) {
    return new Recipe(name, null, List.of(), List.of(), merge, null, null, null);
  }

  static Recipe combined(String name, List<String> files, Map<String, String> carried) {
    return new Recipe(name, null, List.of(), List.of(), null, files, carried, null);
  }
}
