package ironing.core.catalogue;

import java.net.Inet6Address;
import java.net.InetAddress;
import java.util.HexFormat;
import java.util.List;

/**
 * Which addresses are those of the public Internet. All others belong to this machine, its private
 * networks, or to no machine at all: the blocks of RFC 6890 and the registries that it began, and
 * multicast. An address of version 6 that carries one of version 4 is as public as that one.
 */
public final class PublicAddresses {
  private record Block(byte[] prefix, int bits) {}

  /** Those of RFC 6890 that are not global, and multicast (RFC 5771, RFC 4291). */
  private static final List<Block> CLOSED =
      List.of(
          block("00000000", 8), // 0.0.0.0/8, this host on this network
          block("0a000000", 8), // 10.0.0.0/8, private use
          block("64400000", 10), // 100.64.0.0/10, shared address space
          block("7f000000", 8), // 127.0.0.0/8, loopback
          block("a9fe0000", 16), // 169.254.0.0/16, link local
          block("ac100000", 12), // 172.16.0.0/12, private use
          block("c0000000", 24), // 192.0.0.0/24, protocol assignments
          block("c0000200", 24), // 192.0.2.0/24, documentation
          block("c0586300", 24), // 192.88.99.0/24, formerly relays
          block("c0a80000", 16), // 192.168.0.0/16, private use
          block("c6120000", 15), // 198.18.0.0/15, benchmarking
          block("c6336400", 24), // 198.51.100.0/24, documentation
          block("cb007100", 24), // 203.0.113.0/24, documentation
          block("e0000000", 4), // 224.0.0.0/4, multicast
          block("f0000000", 4), // 240.0.0.0/4, reserved, and broadcast
          block("00000000000000000000000000000000", 96), // unspecified, loopback, compatible
          block("01000000000000000000000000000000", 64), // 100::/64, discard only
          block("0064ff9b000100000000000000000000", 48), // 64:ff9b:1::/48, local translation
          block("20010000000000000000000000000000", 23), // 2001::/23, protocol assignments
          block("20010db8000000000000000000000000", 32), // 2001:db8::/32, documentation
          block("3fff0000000000000000000000000000", 20), // 3fff::/20, documentation
          block("5f000000000000000000000000000000", 16), // 5f00::/16, segment routing
          block("fc000000000000000000000000000000", 7), // fc00::/7, unique local
          block("fe800000000000000000000000000000", 10), // fe80::/10, link local
          block("fec00000000000000000000000000000", 10), // fec0::/10, formerly site local
          block("ff000000000000000000000000000000", 8)); // ff00::/8, multicast

  private static final Block MAPPED = block("00000000000000000000ffff00000000", 96);
  private static final Block TRANSLATED = block("0064ff9b000000000000000000000000", 96);
  private static final Block SIX_TO_FOUR = block("20020000000000000000000000000000", 16);

  private PublicAddresses() {}

  /** Whether a machine of the public Internet can have this address. */
  public static boolean isPublic(InetAddress address) {
    byte[] bytes = address.getAddress();
    if (address instanceof Inet6Address) {
      if (in(bytes, MAPPED) || in(bytes, TRANSLATED)) return isPublic(bytes, 12);
      if (in(bytes, SIX_TO_FOUR)) return isPublic(bytes, 2);
    }
    return isOpen(bytes);
  }

  private static boolean isPublic(byte[] bytes, int from) {
    byte[] four = new byte[4];
    System.arraycopy(bytes, from, four, 0, 4);
    return isOpen(four);
  }

  private static boolean isOpen(byte[] bytes) {
    return CLOSED.stream().noneMatch(b -> in(bytes, b));
  }

  private static boolean in(byte[] address, Block block) {
    if (address.length != block.prefix.length) return false;
    for (int bit = 0; bit < block.bits; bit++) {
      int mask = 0x80 >> (bit & 7);
      if ((address[bit >> 3] & mask) != (block.prefix[bit >> 3] & mask)) return false;
    }
    return true;
  }

  private static Block block(String prefix, int bits) {
    return new Block(HexFormat.of().parseHex(prefix), bits);
  }
}
