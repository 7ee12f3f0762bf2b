package ironing.core.version;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import ironing.core.IroningException;
import ironing.core.testkit.Refused;
import java.util.List;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ModVersionTest {
  /** The chains of Semantic Versioning 2.0.0, section 11, points 2 and 4. */
  @Test
  void semver_precedence_examples_hold() {
    rising("1.0.0", "2.0.0", "2.1.0", "2.1.1");
    rising("1.0.0-alpha", "1.0.0");
    rising(
        "1.0.0-alpha",
        "1.0.0-alpha.1",
        "1.0.0-alpha.beta",
        "1.0.0-beta",
        "1.0.0-beta.2",
        "1.0.0-beta.11",
        "1.0.0-rc.1",
        "1.0.0");
  }

  /** The chains of docs/formats/mod-card.md. */
  @Test
  void the_formats_own_examples_hold() {
    rising("1.9", "1.10");
    rising("1.19", "1.19a", "1.20");
    rising("beta", "0.1", "1");
    rising("1-rc1", "1");
    for (String same : List.of("3.0", "3.00", "3", "v3", "3+build7", "V3.0.0")) {
      assertThat(ModVersion.of(same)).as(same).isEqualByComparingTo(ModVersion.of("3"));
      assertThat(ModVersion.of(same)).hasSameHashCodeAs(ModVersion.of("3"));
    }
    assertThat(ModVersion.of(" 2.1.0 ")).hasToString(" 2.1.0 ");
  }

  private static void rising(String... versions) {
    for (int i = 0; i < versions.length; i++) {
      for (int j = 0; j < versions.length; j++) {
        int c = ModVersion.of(versions[i]).compareTo(ModVersion.of(versions[j]));
        assertThat(Integer.signum(c))
            .as(versions[i] + " against " + versions[j])
            .isEqualTo(Integer.compare(i, j));
      }
    }
  }

  @Provide
  Arbitrary<ModVersion> versions() {
    return Arbitraries.strings()
        .withChars("012.ab-v+")
        .ofMinLength(1)
        .ofMaxLength(7)
        .map(ModVersion::of);
  }

  @Property(tries = 3000, seed = "8160")
  void it_is_one_total_order(
      @ForAll("versions") ModVersion a,
      @ForAll("versions") ModVersion b,
      @ForAll("versions") ModVersion c) {
    assertThat(Integer.signum(a.compareTo(b))).isEqualTo(-Integer.signum(b.compareTo(a)));
    if (a.compareTo(b) <= 0 && b.compareTo(c) <= 0)
      assertThat(a.compareTo(c)).isLessThanOrEqualTo(0);
    if (a.equals(b)) assertThat(a.hashCode()).isEqualTo(b.hashCode());
  }

  @ParameterizedTest
  @CsvSource({
    ">=1.4 <2, 1.4, true",
    ">=1.4 <2, 1.4.2, true",
    ">=1.4 <2, 2.0, false",
    ">= 1.4  < 2, 1.10, true",
    "1.2, 1.2.0, true",
    "=1.2, 1.3, false",
    "*, anything, true",
    "<1 || >=2, 1.5, false",
    "<1 || >=2, 2, true",
    "<=1.0, 1.0-beta, true"
  })
  void a_range_holds_or_not(String range, String version, boolean holds) {
    assertThat(VersionRange.of(range).contains(ModVersion.of(version))).isEqualTo(holds);
  }

  @ParameterizedTest
  @ValueSource(strings = {"", ">=", "1.2 >", "|| 1", "~1.2 =>"})
  void what_is_no_range_is_refused_with_an_example(String text) {
    assertThatThrownBy(() -> VersionRange.of(text))
        .isInstanceOf(IroningException.class)
        .hasMessageContaining("Write it like");
    assertThat(Refused.code(() -> VersionRange.of(text))).isEqualTo("range-invalid");
  }

  /** SemVer 2.0.0, section 11.4.2: identifiers with letters compare in ASCII sort order. */
  @Test
  void case_counts_behind_a_hyphen_and_not_behind_a_number() {
    rising("1.0.0-Beta", "1.0.0-alpha", "1.0.0-beta");
    assertThat(ModVersion.of("1.19A")).isEqualTo(ModVersion.of("1.19a"));
    assertThat(ModVersion.of("V1.2")).isEqualTo(ModVersion.of("1.2"));
    assertThat(ModVersion.of("1.0-rc.01").hashCode())
        .isEqualTo(ModVersion.of("1.0-rc.1").hashCode());
  }
}
