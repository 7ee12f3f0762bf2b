package ironing.core.catalogue;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import ironing.core.IroningException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class HrefsTest {
  private final Hrefs hrefs =
      new Hrefs(
          URI.create("https://board.example.org/mods/catalogue.json"),
          List.of("https://files.example.org", "http://plain.example.org:8080", "ftp://x", "§"));

  @Test
  void files_lie_with_the_catalogue_or_where_it_says() {
    assertThat(hrefs.resolve("parts/a.jsonl"))
        .hasToString("https://board.example.org/mods/parts/a.jsonl");
    assertThat(hrefs.resolve("/x")).hasToString("https://board.example.org/x");
    assertThat(hrefs.resolve("../../x")).hasHost("board.example.org");
    assertThat(hrefs.resolve("https://board.example.org:443/x")).hasHost("board.example.org");
    assertThat(hrefs.resolve("https://FILES.example.org/x")).hasScheme("https");
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "https://other.example.org/x",
        "https://files.example.org.evil.example/x",
        "https://files.example.org:8443/x",
        "http://board.example.org/x",
        "http://plain.example.org:8080/x",
        "//other.example.org/x",
        "file:///etc/passwd",
        "https://user@files.example.org/x",
        "https://files.example.org@other.example.org/x",
        "javascript:alert(1)",
        "ftp://x/y",
        "https:///x"
      })
  void nothing_else_is_asked(String href) {
    assertThat(code(() -> hrefs.resolve(href))).isEqualTo("href-foreign");
    assertThat(code(() -> hrefs.redirect(URI.create("https://files.example.org/a"), href)))
        .isEqualTo("href-foreign");
  }

  @Test
  void what_is_no_address_is_said_so() {
    assertThat(code(() -> hrefs.resolve("a b"))).isEqualTo("href-invalid");
    assertThat(code(() -> hrefs.resolve("http://[::1"))).isEqualTo("href-invalid");
  }

  private static String code(Runnable act) {
    IroningException e = catchThrowableOfType(IroningException.class, act::run);
    return e == null ? "none" : e.problems().get(0).code();
  }

  /** The tables of RFC 6890, and what carries an address of version 4 within one of version 6. */
  @ParameterizedTest
  @ValueSource(
      strings = {
        "0.0.0.0",
        "10.1.2.3",
        "100.64.0.1",
        "100.127.255.255",
        "127.0.0.1",
        "127.255.0.9",
        "169.254.1.1",
        "172.16.0.1",
        "172.31.255.255",
        "192.0.0.1",
        "192.0.2.7",
        "192.88.99.1",
        "192.168.1.1",
        "198.18.0.1",
        "198.19.255.255",
        "198.51.100.1",
        "203.0.113.9",
        "224.0.0.1",
        "239.1.1.1",
        "240.0.0.1",
        "255.255.255.255",
        "::",
        "::1",
        "::127.0.0.1",
        "64:ff9b::10.0.0.1",
        "64:ff9b:1::1",
        "100::1",
        "2001::1",
        "2001:1ff:ffff::1",
        "2001:db8::1",
        "2002:7f00:1::1",
        "fc00::1",
        "fdff::1",
        "fe80::1",
        "febf::1",
        "ff02::1"
      })
  void closed(String address) throws UnknownHostException {
    assertThat(PublicAddresses.isPublic(InetAddress.getByName(address))).isFalse();
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "1.1.1.1",
        "9.255.255.255",
        "11.0.0.0",
        "100.63.255.255",
        "100.128.0.0",
        "126.255.255.255",
        "128.0.0.0",
        "172.15.255.255",
        "172.32.0.0",
        "192.0.1.0",
        "192.167.255.255",
        "192.169.0.0",
        "198.17.255.255",
        "198.20.0.0",
        "223.255.255.255",
        "2606:4700::1111",
        "2001:200::1",
        "2a00::1",
        "64:ff9b::1.1.1.1",
        "2002:101:101::1"
      })
  void open(String address) throws UnknownHostException {
    assertThat(PublicAddresses.isPublic(InetAddress.getByName(address))).isTrue();
  }

  /** A mapped address comes out of Java as one of version 4, and by its bytes as it is. */
  @Test
  void mapped() throws UnknownHostException {
    byte[] mapped = new byte[16];
    mapped[10] = mapped[11] = (byte) 0xff;
    mapped[12] = 10;
    assertThat(PublicAddresses.isPublic(java.net.Inet6Address.getByAddress("", mapped, -1)))
        .isFalse();
    assertThat(PublicAddresses.isPublic(InetAddress.getByAddress(mapped))).isFalse();
  }
}
