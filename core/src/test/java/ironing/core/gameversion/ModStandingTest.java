package ironing.core.gameversion;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.Finding;
import ironing.core.catalogue.Finding.Verdict;
import ironing.core.gameversion.ModStanding.Known;
import ironing.core.gameversion.ModStanding.State;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ModStandingTest {
  private static final Optional<ModVersion> GAME = Optional.of(ModVersion.of("1.5"));

  private static Finding found(Verdict verdict, String at) {
    return new Finding(
        "gulls", VersionRange.of("*"), Optional.empty(), List.of(), verdict, "", at, "Tove");
  }

  private static Known known(
      Boolean said,
      boolean harmless,
      String range,
      String offered,
      List<Finding> own,
      List<Finding> others) {
    return new Known(
        Optional.ofNullable(said),
        harmless,
        VersionRange.of(range),
        Optional.ofNullable(offered).map(VersionRange::of),
        own,
        others,
        Optional.of(ModVersion.of("9")));
  }

  private static State state(Known k) {
    return ModStanding.of(k, GAME).state();
  }

  @Test
  void a_finding_that_another_answers_does_not_make_it_broken() {
    List<Finding> answered =
        List.of(found(Verdict.BROKEN, "2026-11-02"), found(Verdict.WORKS, "2026-11-02"));
    List<Finding> later =
        List.of(found(Verdict.BROKEN, "2026-11-03"), found(Verdict.WORKS, "2026-11-02"));
    assertThat(state(known(null, false, "*", null, List.of(), answered))).isEqualTo(State.WORKS);
    assertThat(state(known(null, false, "*", null, List.of(), later))).isEqualTo(State.BROKEN);
    assertThat(
            state(
                known(
                    null,
                    false,
                    "*",
                    null,
                    List.of(found(Verdict.BROKEN, "2026-11-01")),
                    answered)))
        .as("nobody else answers one's own")
        .isEqualTo(State.BROKEN);
  }

  @Test
  void what_waits_says_what_comes() {
    ModStanding s = ModStanding.of(known(null, false, "<1.5", null, List.of(), List.of()), GAME);
    assertThat(s.state()).isEqualTo(State.WAITING);
    assertThat(s.comes()).contains(ModVersion.of("9"));
    assertThat(s.reason()).isEqualTo("it is for <1.5");
    assertThat(
            ModStanding.of(known(null, false, "<1.5", null, List.of(), List.of()), Optional.empty())
                .state())
        .isEqualTo(State.WORKS);
  }

  /** The order that the states are asked in, each as its own sentence. */
  @Property(tries = 500, seed = "2431")
  void the_first_that_is_true_is_the_one(
      @ForAll boolean says,
      @ForAll boolean saysWorks,
      @ForAll boolean harmless,
      @ForAll boolean ownBroken,
      @ForAll boolean othersBroken,
      @ForAll boolean covers,
      @ForAll boolean coversByNow) {
    List<Finding> own = new ArrayList<>(), others = new ArrayList<>();
    if (ownBroken) own.add(found(Verdict.BROKEN, "2026-11-01"));
    if (othersBroken) others.add(found(Verdict.BROKEN, "2026-11-01"));
    State state =
        state(
            known(
                says ? saysWorks : null,
                harmless,
                covers ? ">=1.4" : "<1.4",
                coversByNow ? ">=1.4" : null,
                own,
                others));
    List<State> inOrder = new ArrayList<>();
    if (says && saysWorks) inOrder.add(State.SAID_WORKS);
    if (says && !saysWorks) inOrder.add(State.SAID_BROKEN);
    if (harmless) inOrder.add(State.CANNOT_BREAK);
    if (ownBroken || othersBroken) inOrder.add(State.BROKEN);
    if (covers || coversByNow) inOrder.add(State.WORKS);
    inOrder.add(State.WAITING);
    assertThat(state).isEqualTo(inOrder.get(0));
  }
}
