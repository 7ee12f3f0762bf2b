package ironing.core.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HexFormat;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** SHA-256 (FIPS 180-4) against the vectors of RFC 6234, section 8.5. */
class ContentHashTest {
  static Stream<Arguments> vectors() {
    return Stream.of(
        Arguments.of(
            "TEST1",
            ascii("abc"),
            "ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad"),
        Arguments.of(
            "TEST2_1",
            ascii("abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq"),
            "248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1"),
        Arguments.of(
            "TEST3",
            ascii("a".repeat(1_000_000)),
            "cdc76e5c9914fb9281a1c7e284d73e67f1809a48a497200e046d39ccc7112cd0"),
        Arguments.of(
            "TEST4",
            ascii("0123456701234567012345670123456701234567012345670123456701234567".repeat(10)),
            "594847328451bdfa85056225462cc1d867d877fb388df0ce35f25ab5562bfbb5"),
        Arguments.of(
            "TEST6_256",
            HexFormat.of().parseHex("19"),
            "68aa2e2ee5dff96e3355e6c7ee373e3d6a4e17f75f9518d843709c0c9bc3e3d4"),
        Arguments.of(
            "TEST8_256",
            HexFormat.of().parseHex("e3d72570dcdd787ce3887ab2cd684652"),
            "175ee69b02ba9b58e2b0a5fd13819cea573f3940a94f825128cf4209beabb4e8"));
  }

  private static byte[] ascii(String s) {
    return s.getBytes(StandardCharsets.US_ASCII);
  }

  @ParameterizedTest(name = "{0}")
  @MethodSource("vectors")
  void rfc_6234_vectors_hold(String name, byte[] message, String digest) throws IOException {
    assertThat(ContentHash.of(message)).isEqualTo(digest);
    assertThat(ContentHash.of(new ByteArrayInputStream(message))).isEqualTo(digest);
  }
}
