package ironing.core.mends;

import ironing.core.combinedfiles.Choice;
import ironing.core.combinedfiles.CombinedFile;
import ironing.core.combinedfiles.FileChoices;
import ironing.core.combinedfiles.Place;
import ironing.core.combinedfiles.Place.How;
import ironing.core.combinedfiles.PlaceKind;
import ironing.core.workspace.Workspace;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;

/**
 * One mod's version taken at every place of some files that is still asked.
 *
 * <p>What is decided stays, and so does what no choice of one version settles: a name that would
 * stand twice, and places that the mod does not touch.
 *
 * @param choices by the path of each file in which something is settled, all choices that it has
 *     then
 * @param places how many places are settled
 * @param left how many of the places that are asked in these files stay so
 */
public record SweepingChoice(Map<String, FileChoices> choices, int places, int left) {

  /**
   * Cost: each file is combined once.
   *
   * @param of the files
   * @param take the id of the mod whose version is taken
   * @param kinds only places of these kinds; empty for all
   */
  public static SweepingChoice of(
      Workspace workspace, Contests contests, List<Contest> of, String take, Set<PlaceKind> kinds) {
    Map<String, FileChoices> choices = new TreeMap<>();
    int places = 0, left = 0;
    for (Contest contest : of) {
      if (contest.isTwins()) continue;
      CombinedFile file = contests.combine(workspace, contest);
      FileChoices now = workspace.picture().arrangement().choicesOn(contest.path());
      FileChoices next = now;
      for (Place place : file.places()) {
        if (place.how() != How.ASKED) continue;
        if (settles(place, take, kinds)) {
          next = next.with(place.key(), Optional.of(Choice.of(take)));
          places++;
        } else {
          left++;
        }
      }
      if (!next.equals(now)) choices.put(contest.path(), next);
    }
    return new SweepingChoice(choices, places, left);
  }

  private static boolean settles(Place place, String take, Set<PlaceKind> kinds) {
    PlaceKind kind = PlaceKind.of(place);
    return kind != PlaceKind.TWICE
        && (kinds.isEmpty() || kinds.contains(kind))
        && place.sides().stream().anyMatch(s -> s.of().contains(take));
  }
}
