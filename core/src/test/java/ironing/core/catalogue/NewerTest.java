package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.OfferedMod.Change;
import ironing.core.catalogue.OfferedMod.Kind;
import ironing.core.catalogue.OfferedMod.OfferedFile;
import ironing.core.catalogue.OfferedMod.Release;
import ironing.core.version.ModVersion;
import ironing.core.version.VersionRange;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import org.junit.jupiter.api.Test;

class NewerTest {
  private static Release release(String version, String variant, Kind kind, Change change) {
    return release(version, variant, kind, change, "");
  }

  private static Release release(
      String version, String variant, Kind kind, Change change, String withdrawn) {
    return new Release(
        ModVersion.of(version),
        "2026-11-20",
        kind,
        variant,
        "",
        new OfferedFile("a.zip", "a.zip", 1, "0".repeat(64)),
        VersionRange.of("*"),
        false,
        List.of(),
        List.of(),
        List.of(),
        change,
        "",
        withdrawn);
  }

  private static Optional<Newer> newer(String here, String variant, Release... all) {
    return Newer.than(ModVersion.of(here), variant, List.of(all));
  }

  @Test
  void the_example_of_semver_is_ascended_step_by_step() {
    // SemVer 2.0.0, section 11, item 4
    List<String> ascending =
        List.of(
            "1.0.0-alpha",
            "1.0.0-alpha.1",
            "1.0.0-alpha.beta",
            "1.0.0-beta",
            "1.0.0-beta.2",
            "1.0.0-beta.11",
            "1.0.0-rc.1",
            "1.0.0");
    Release[] all =
        ascending.stream().map(v -> release(v, "", Kind.MAIN, Change.FIX)).toArray(Release[]::new);
    for (int i = 0; i < ascending.size(); i++) {
      Optional<Newer> found = newer(ascending.get(i), "", all);
      assertThat(found.map(n -> n.between().size()).orElse(0)).isEqualTo(ascending.size() - 1 - i);
      found.ifPresent(n -> assertThat(n.newest().version()).hasToString("1.0.0"));
    }
  }

  @Test
  void old_withdrawn_and_other_variants_are_no_updates() {
    assertThat(
            newer(
                "1",
                "small",
                release("2", "", Kind.MAIN, Change.FIX),
                release("3", "small", Kind.OLD, Change.FIX),
                release("4", "small", Kind.MAIN, Change.FIX, "it eats savegames"),
                release("0.9", "small", Kind.MAIN, Change.FIX),
                release("1.0", "small", Kind.MAIN, Change.FIX)))
        .isEmpty();
  }

  @Test
  void the_most_that_changes_between_here_and_there_is_told() {
    Release fix = release("2", "", Kind.MAIN, Change.FIX);
    Release feature = release("3", "", Kind.MAIN, Change.FEATURE);
    Release large = release("4", "", Kind.MAIN, Change.LARGE);
    Release silent = release("5", "", Kind.MAIN, Change.UNKNOWN);
    assertThat(newer("1", "", fix).orElseThrow().change()).isEqualTo(Change.FIX);
    assertThat(newer("1", "", fix, feature).orElseThrow().change()).isEqualTo(Change.FEATURE);
    assertThat(newer("1", "", silent, feature).orElseThrow().change()).isEqualTo(Change.UNKNOWN);
    assertThat(newer("1", "", silent, large).orElseThrow().change()).isEqualTo(Change.LARGE);
    assertThat(newer("4", "", large, fix)).as("what is behind counts no more").isEmpty();
  }

  @Property(tries = 300, seed = "2411")
  void the_newest_is_above_all_that_lies_between(
      @ForAll @IntRange(max = 9) int here,
      @ForAll @Size(max = 12) List<@IntRange(max = 9) Integer> versions) {
    Release[] all =
        versions.stream()
            .map(v -> release("1." + v, "", Kind.MAIN, Change.FIX))
            .toArray(Release[]::new);
    Optional<Newer> found = newer("1." + here, "", all);
    assertThat(found.isPresent()).isEqualTo(versions.stream().anyMatch(v -> v > here));
    found.ifPresent(
        n -> {
          assertThat(n.between().get(0)).isEqualTo(n.newest());
          assertThat(n.between().stream().map(Release::version).toList())
              .isSortedAccordingTo(Comparator.reverseOrder())
              .doesNotHaveDuplicates()
              .hasSize((int) versions.stream().filter(v -> v > here).distinct().count());
        });
  }
}
