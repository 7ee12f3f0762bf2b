package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import java.util.HexFormat;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SignatureTest {
  /** RFC 8032, section 7.1: tests 1, 2, 3 and “SHA(abc)”. */
  @ParameterizedTest
  @CsvSource({
    "d75a980182b10ab7d54bfed3c964073a0ee172f3daa62325af021a68f707511a,'',e5564300c360ac729086e2cc806e828a84877f1eb8e5d974d873e065224901555fb8821590a33bacc61e39701cf9b46bd25bf5f0595bbe24655141438e7a100b",
    "3d4017c3e843895a92b70aa74d1b7ebc9c982ccf2ec4968cc0cd55f12af4660c,72,92a009a9f0d4cab8720e820b5f642540a2b27b5416503f8fb3762223ebdb69da085ac1e43e15996e458f3613d0f11d8c387b2eaeb4302aeeb00d291612bb0c00",
    "fc51cd8e6218a1a38da47ed00230f0580816ed13ba3303ac5deb911548908025,af82,6291d657deec24024827e69c3abe01a30ce548a284743a445e3680d7db5ac3ac18ff9b538d16f290ae67f760984dc6594a7c15e9716ed28dc027beceea1ec40a",
    "ec172b93ad5e563bf4932c70e1245034c35467ef2efd4d64ebf819683467e2bf,ddaf35a193617abacc417349ae20413112e6fa4e89a97ea20a9eeee64b55d39a2192992a274fc1a836ba3c23a3feebbd454d4423643ce80e2a9ac94fa54ca49f,dc2a4459e7369633a52b1bf277839a00201009a3efbf3ecb69bea2186c26b58909351fc9ac90b3ecfdfbc7c66431e0303dca179c138ac17ad9bef1177331a704",
  })
  void the_vectors_of_the_standard_hold_and_nothing_beside_them(
      String key, String message, String signature) {
    HexFormat hex = HexFormat.of();
    String k = Base64.getEncoder().encodeToString(hex.parseHex(key));
    byte[] m = hex.parseHex(message);
    byte[] sig = hex.parseHex(signature);
    String s = Base64.getEncoder().encodeToString(sig);
    assertThat(Signature.holds(k, m, s)).isTrue();
    assertThat(Signature.holds(k, m, "\n " + s + "\r\n")).isTrue();
    for (int at : new int[] {0, 31, 32, 63}) {
      byte[] other = sig.clone();
      other[at] ^= 1;
      assertThat(Signature.holds(k, m, Base64.getEncoder().encodeToString(other))).isFalse();
    }
    byte[] more = java.util.Arrays.copyOf(m, m.length + 1);
    assertThat(Signature.holds(k, more, s)).isFalse();
    assertThat(Signature.holds(k, m, s.substring(4))).isFalse();
  }

  @Test
  void what_is_no_key_or_no_signature_signs_nothing() {
    String zeros = Base64.getEncoder().encodeToString(new byte[32]);
    String sig = Base64.getEncoder().encodeToString(new byte[64]);
    assertThat(Signature.holds("§", new byte[0], sig)).isFalse();
    assertThat(Signature.holds("", new byte[0], sig)).isFalse();
    assertThat(Signature.holds(zeros, new byte[] {1}, "")).isFalse();
    assertThat(Signature.holds(zeros, new byte[] {1}, "<html>not found</html>")).isFalse();
    assertThat(Signature.holds(zeros, new byte[] {1}, sig)).isFalse();
  }

  @Test
  void a_fingerprint_is_the_digest_of_the_raw_key() {
    // sha256sum of 32 zero bytes, by GNU coreutils
    assertThat(Signature.fingerprint(Base64.getEncoder().encodeToString(new byte[32])))
        .isEqualTo("66687aadf862bd776c8fc18b8e9f8e20089714856ee233b3902a591d0d5f2925");
  }
}
