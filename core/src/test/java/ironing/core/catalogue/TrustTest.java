package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import ironing.core.catalogue.Trust.Verdict.Refused;
import ironing.core.catalogue.Trust.Verdict.Same;
import ironing.core.catalogue.Trust.Verdict.Taken;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.util.Arrays;
import java.util.Base64;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class TrustTest {
  private final KeyPair first = pair(), second = pair();

  @Test
  void the_key_of_the_first_look_is_kept_and_later_states_must_have_it() {
    Trust kept = taken(look(Optional.empty(), state(5, key(first), ""), first));
    assertThat(kept.key()).isEqualTo(key(first));
    assertThat(kept.sequence()).isEqualTo(5);
    assertThat(look(Optional.of(kept), state(6, key(first), ""), first)).isInstanceOf(Taken.class);
    assertRefused(
        look(Optional.of(kept), state(6, key(second), ""), second), "catalogue-key-other");
    assertRefused(look(Optional.of(kept), state(6, "", ""), null), "catalogue-key-other");
    assertRefused(
        look(Optional.of(kept), state(6, key(first), ""), second), "catalogue-signature-wrong");
    assertRefused(
        look(Optional.of(kept), state(6, key(first), ""), null), "catalogue-signature-wrong");
  }

  @Test
  void a_sequence_never_goes_back_and_names_one_state() {
    Trust kept = taken(look(Optional.empty(), state(5, key(first), ""), first));
    assertRefused(
        look(Optional.of(kept), state(4, key(first), ""), first), "catalogue-sequence-lower");
    assertRefused(
        look(Optional.of(kept), state(5, key(first), key(second)), first),
        "catalogue-sequence-same");
    assertThat(look(Optional.of(kept), state(5, key(first), ""), first)).isInstanceOf(Same.class);
  }

  @Test
  void the_next_key_takes_its_place_and_the_old_one_signs_nothing_more() {
    Trust kept = taken(look(Optional.empty(), state(5, key(first), ""), first));
    kept = taken(look(Optional.of(kept), state(6, key(first), key(second)), first));
    assertThat(kept.key()).isEqualTo(key(second));
    assertThat(look(Optional.of(kept), state(6, key(first), key(second)), first))
        .as("the very state that named it, looked at again")
        .isInstanceOf(Same.class);
    assertRefused(look(Optional.of(kept), state(7, key(first), ""), first), "catalogue-key-other");
    assertThat(look(Optional.of(kept), state(7, key(second), ""), second))
        .isInstanceOf(Taken.class);
  }

  @Test
  void a_next_key_that_the_old_one_has_not_signed_is_none() {
    Trust kept = taken(look(Optional.empty(), state(5, key(first), ""), first));
    assertRefused(
        look(Optional.of(kept), state(6, key(first), key(second)), second),
        "catalogue-signature-wrong");
  }

  @Test
  void what_was_never_signed_may_begin_to_be() {
    Trust kept = taken(look(Optional.empty(), state(5, "", ""), null));
    assertThat(kept.key()).isEmpty();
    kept = taken(look(Optional.of(kept), state(6, key(first), ""), first));
    assertThat(kept.key()).isEqualTo(key(first));
  }

  @Test
  void the_first_look_needs_a_signature_too_where_there_is_a_key() {
    assertRefused(
        look(Optional.empty(), state(5, key(first), ""), second), "catalogue-signature-wrong");
  }

  private static Trust taken(Trust.Verdict v) {
    assertThat(v).isInstanceOf(Taken.class);
    return ((Taken) v).kept();
  }

  private static void assertRefused(Trust.Verdict v, String code) {
    assertThat(v).isInstanceOf(Refused.class);
    assertThat(((Refused) v).problem().code()).isEqualTo(code);
    assertThat(((Refused) v).again()).isEqualTo(code.equals("catalogue-signature-wrong"));
  }

  private static Trust.Verdict look(Optional<Trust> here, byte[] state, KeyPair signer) {
    return Trust.judge(
        here,
        Catalogue.read(state),
        state,
        Integer.toHexString(Arrays.hashCode(state)),
        Optional.ofNullable(signer).map(s -> sign(s, state)));
  }

  private static byte[] state(long sequence, String key, String nextKey) {
    String json =
        "{\"format\":\"ironing/catalogue@1\",\"id\":\"harbour-board\",\"title\":\"Harbour Board\","
            + "\"games\":[\"skerry-line\"],\"parts\":[],\"sequence\":"
            + sequence
            + ",\"key\":\""
            + key
            + "\",\"nextKey\":\""
            + nextKey
            + "\"}";
    return json.getBytes(StandardCharsets.UTF_8);
  }

  private static KeyPair pair() {
    try {
      return KeyPairGenerator.getInstance("Ed25519").generateKeyPair();
    } catch (GeneralSecurityException e) {
      throw new AssertionError(e);
    }
  }

  /** The raw key: the last 32 bytes of its SubjectPublicKeyInfo (RFC 8410). */
  private static String key(KeyPair pair) {
    byte[] spki = pair.getPublic().getEncoded();
    return Base64.getEncoder()
        .encodeToString(Arrays.copyOfRange(spki, spki.length - 32, spki.length));
  }

  private static String sign(KeyPair pair, byte[] bytes) {
    try {
      java.security.Signature s = java.security.Signature.getInstance("Ed25519");
      s.initSign(pair.getPrivate());
      s.update(bytes);
      return Base64.getEncoder().encodeToString(s.sign());
    } catch (GeneralSecurityException e) {
      throw new AssertionError(e);
    }
  }
}
