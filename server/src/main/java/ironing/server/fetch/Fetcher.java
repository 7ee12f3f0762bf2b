package ironing.server.fetch;

import ironing.core.IroningException;
import ironing.core.catalogue.Hrefs;
import ironing.core.catalogue.PublicAddresses;
import jakarta.annotation.PreDestroy;
import java.io.Closeable;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.SocketTimeoutException;
import java.net.URI;
import java.net.UnknownHostException;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.net.ssl.SSLException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;
import org.apache.hc.client5.http.classic.methods.HttpGet;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.HttpHeaders;
import org.apache.hc.core5.util.Timeout;
import org.springframework.stereotype.Component;

/**
 * Asks for one file after another by HTTP (RFC 9110), and gives its bytes as they come.
 *
 * <p>At most two connections to an origin. An origin that the user has made a catalogue may lie
 * anywhere; all others only at public addresses, which is checked of the very address that is
 * connected to. Redirects are followed up to five times, each checked like the first. Bytes come as
 * they are: no encoding but identity is asked for or taken. Threads: any.
 */
@Component
public class Fetcher {
  private static final int MOST_REDIRECTS = 5;
  private static final int MOST_TO_AN_ORIGIN = 2;
  private static final Timeout CONNECT = Timeout.ofSeconds(10);
  private static final Timeout SILENCE = Timeout.ofSeconds(30);

  private final CloseableHttpClient anywhere = client(SystemDefaultDnsResolver.INSTANCE);
  private final CloseableHttpClient publicOnly = client(new PublicResolver());

  private static CloseableHttpClient client(DnsResolver resolver) {
    return HttpClients.custom()
        .setConnectionManager(
            PoolingHttpClientConnectionManagerBuilder.create()
                .setDnsResolver(resolver)
                .setMaxConnPerRoute(MOST_TO_AN_ORIGIN)
                .setMaxConnTotal(20)
                .setDefaultConnectionConfig(
                    ConnectionConfig.custom()
                        .setConnectTimeout(CONNECT)
                        .setSocketTimeout(SILENCE)
                        .build())
                .build())
        .setDefaultRequestConfig(
            RequestConfig.custom()
                .setResponseTimeout(SILENCE)
                .setConnectionRequestTimeout(Timeout.ofMinutes(10))
                .build())
        .disableRedirectHandling()
        .disableContentCompression()
        .disableAutomaticRetries()
        .disableCookieManagement()
        .disableAuthCaching()
        .setUserAgent("Ironing")
        .build();
  }

  /** Finds only addresses of the public Internet, and connects to none but these. */
  private static final class PublicResolver implements DnsResolver {
    @Override
    public InetAddress[] resolve(String host) throws UnknownHostException {
      InetAddress[] all = SystemDefaultDnsResolver.INSTANCE.resolve(host);
      InetAddress[] open =
          Arrays.stream(all).filter(PublicAddresses::isPublic).toArray(InetAddress[]::new);
      if (open.length == 0) throw new PrivateAddress(host);
      return open;
    }

    @Override
    public String resolveCanonicalHostname(String host) {
      return host;
    }
  }

  private static final class PrivateAddress extends UnknownHostException {
    private static final long serialVersionUID = 1;

    PrivateAddress(String host) {
      super(host);
    }
  }

  @PreDestroy
  void close() throws IOException {
    anywhere.close();
    publicOnly.close();
  }

  /**
   * What may be asked.
   *
   * @param places where files may lie
   * @param origins that the user has made catalogues: these may lie at private addresses
   */
  public record May(Hrefs places, Set<String> origins) {}

  /**
   * An answer whose bytes are still to come. To be closed.
   *
   * @param from who gave it, redirects followed
   */
  public record Answer(URI from, int status, Map<String, String> headers, InputStream body)
      implements Closeable {
    /** A header's value; of several of one name the first. */
    public Optional<String> header(String name) {
      return Optional.ofNullable(headers.get(name.toLowerCase(Locale.ROOT)));
    }

    @Override
    public void close() throws IOException {
      body.close();
    }
  }

  /**
   * Asks for a file.
   *
   * @param headers beside those that are always sent
   * @throws IroningException with code {@code href-foreign}, {@code href-invalid}, {@code
   *     address-private}, {@code too-many-redirects} or {@code answer-encoded} where asking again
   *     is of no use
   * @throws IOException where the line or the other side fails
   */
  public Answer get(URI uri, May may, Map<String, String> headers) throws IOException {
    URI at = uri;
    for (int i = 0; i <= MOST_REDIRECTS; i++) {
      Answer answer = once(at, may, headers);
      Optional<String> location = answer.header(HttpHeaders.LOCATION);
      boolean leadsOn =
          List.of(301, 302, 303, 307, 308).contains(answer.status()) && location.isPresent();
      if (!leadsOn) return identity(answer);
      answer.close();
      at = may.places().redirect(at, location.get());
    }
    throw IroningException.of(
        "too-many-redirects",
        uri.toString(),
        "Its answers led on more than " + MOST_REDIRECTS + " times.",
        "Tell whoever keeps the catalogue.");
  }

  private static Answer identity(Answer answer) throws IOException {
    Optional<String> encoding =
        answer.header(HttpHeaders.CONTENT_ENCODING).filter(e -> !e.equalsIgnoreCase("identity"));
    if (encoding.isEmpty()) return answer;
    answer.close();
    throw IroningException.of(
        "answer-encoded",
        answer.from().toString(),
        "It comes packed as “" + encoding.get() + "”, which was not asked for.",
        "Tell whoever keeps the catalogue.");
  }

  private Answer once(URI uri, May may, Map<String, String> headers) throws IOException {
    HttpGet request = new HttpGet(uri);
    request.setHeader(HttpHeaders.ACCEPT_ENCODING, "identity");
    headers.forEach(request::setHeader);
    CloseableHttpClient client = may.origins().contains(Hrefs.origin(uri)) ? anywhere : publicOnly;
    try {
      ClassicHttpResponse response = client.executeOpen(null, request, null);
      Map<String, String> out = new HashMap<>();
      for (Header h : response.getHeaders())
        out.putIfAbsent(h.getName().toLowerCase(Locale.ROOT), h.getValue());
      HttpEntity entity = response.getEntity();
      InputStream body =
          entity == null
              ? InputStream.nullInputStream()
              : new Body(entity.getContent(), request, response);
      return new Answer(uri, response.getCode(), out, body);
    } catch (PrivateAddress e) {
      throw IroningException.of(
          "address-private",
          uri.toString(),
          "It lies on this machine or in a private network, where a catalogue must not lead.",
          "If it is your own, add a catalogue at this place yourself.",
          e);
    }
  }

  /** The bytes of an answer; closed early, the connection goes and the rest is not waited for. */
  private static final class Body extends FilterInputStream {
    private final HttpGet request;
    private final ClassicHttpResponse response;
    private boolean ended;

    Body(InputStream in, HttpGet request, ClassicHttpResponse response) {
      super(in);
      this.request = request;
      this.response = response;
    }

    @Override
    public int read() throws IOException {
      int b = super.read();
      ended |= b < 0;
      return b;
    }

    @Override
    public int read(byte[] b, int off, int len) throws IOException {
      int n = super.read(b, off, len);
      ended |= n < 0;
      return n;
    }

    @Override
    public void close() throws IOException {
      // else closing would read to the end, to keep the connection
      if (!ended) request.cancel();
      try {
        response.close();
      } catch (IOException e) {
        // whoever has what was wanted does not mind how the line ends
        if (ended) throw e;
      }
    }
  }

  /** What went wrong with a line, in words. */
  public static String said(IOException e) {
    if (e instanceof SocketTimeoutException) return "It did not answer in time.";
    if (e instanceof UnknownHostException) return "There is no machine of this name.";
    if (e instanceof SSLException) return "It cannot prove who it is: " + first(e) + ".";
    if (e instanceof ConnectException) return "Nobody answers there.";
    return "The line broke: " + first(e) + ".";
  }

  private static String first(IOException e) {
    String message = e.getMessage() == null ? e.getClass().getSimpleName() : e.getMessage();
    return message.lines().findFirst().orElse("").replaceAll("[.]$", "");
  }
}
