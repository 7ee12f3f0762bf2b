package ironing.server.trouble;

import ironing.core.trouble.Fault;
import ironing.core.trouble.Measuring;
import ironing.core.trouble.Next;
import ironing.core.trouble.Part;
import ironing.core.trouble.SearchedInside.Named;
import ironing.core.trouble.SearchedParts;
import ironing.core.trouble.TriedSets;
import ironing.core.trouble.TriedSets.Tried;
import ironing.server.trouble.SearchMapper.SearchRow;
import ironing.server.trouble.SearchMapper.TryRow;
import java.util.Arrays;
import java.util.BitSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * A search as it stands.
 *
 * @param known the parts of the levels above that were found
 * @param next what follows from its tries
 */
record Search(
    SearchRow row,
    Fault fault,
    Named named,
    SearchedParts searched,
    List<Part> known,
    List<TryRow> tries,
    TriedSets tried,
    Next next) {

  static Search of(
      SearchRow row,
      Fault fault,
      Named named,
      SearchedParts searched,
      List<Part> known,
      List<TryRow> tries) {
    List<Tried> all = tries.stream().map(t -> new Tried(set(t.members()), t.answer())).toList();
    TriedSets tried = new TriedSets(all, row.wholeFirst());
    Next next =
        row.measured() == null
            ? searched.search().next(tried)
            : measuring(row, fault, searched).next(all);
    return new Search(row, fault, named, searched, known, tries, tried, next);
  }

  private static Measuring measuring(SearchRow row, Fault fault, SearchedParts searched) {
    return new Measuring(searched.members(), row.measured(), Integer.parseInt(fault.value()));
  }

  /** How the part is measured that this is about; empty for a search. */
  Optional<Measuring> measuring() {
    return Optional.ofNullable(row.measured()).map(m -> measuring(row, fault, searched));
  }

  long id() {
    return row.id();
  }

  long workspace() {
    return row.workspaceId();
  }

  List<Part> parts(BitSet set) {
    return set.stream().mapToObj(searched.parts()::get).toList();
  }

  static BitSet set(String members) {
    BitSet out = new BitSet();
    if (!members.isEmpty())
      Arrays.stream(members.split(",")).mapToInt(Integer::parseInt).forEach(out::set);
    return out;
  }

  static String written(BitSet set) {
    return set.stream().mapToObj(Integer::toString).collect(Collectors.joining(","));
  }
}
