package ironing.server.workspace;

import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import ironing.core.records.Decided;
import ironing.core.records.Decision;
import ironing.core.records.Decision.Outcome;
import java.io.IOException;
import org.springframework.stereotype.Component;

/**
 * A decision as it is written down: {@code take} with a plugin, {@code outcome}, or {@code own}
 * with a value; and {@code seen} with what the sides said then.
 */
@Component
class DecidedJson extends SimpleModule {
  private static final long serialVersionUID = 1;

  DecidedJson() {
    addSerializer(Decided.class, new Writing());
    addDeserializer(Decided.class, new Reading());
  }

  private static final class Writing extends StdSerializer<Decided> {
    private static final long serialVersionUID = 1;

    Writing() {
      super(Decided.class);
    }

    @Override
    public void serialize(Decided d, JsonGenerator out, SerializerProvider all) throws IOException {
      out.writeStartObject();
      if (d.decision() instanceof Decision.Take take) out.writeStringField("take", take.plugin());
      if (d.decision() instanceof Outcome outcome) out.writeStringField("outcome", outcome.name());
      if (d.decision() instanceof Decision.Own own) out.writeStringField("own", own.text());
      if (!d.seen().isEmpty()) out.writeStringField("seen", d.seen());
      out.writeEndObject();
    }
  }

  private static final class Reading extends StdDeserializer<Decided> {
    private static final long serialVersionUID = 1;

    Reading() {
      super(Decided.class);
    }

    @Override
    public Decided deserialize(JsonParser in, DeserializationContext all) throws IOException {
      JsonNode n = in.readValueAsTree();
      return new Decided(decision(n, all), n.path("seen").asText(""));
    }

    private static Decision decision(JsonNode n, DeserializationContext all) throws IOException {
      if (n.path("take").isTextual()) return new Decision.Take(n.get("take").asText());
      if (n.path("own").isTextual()) return new Decision.Own(n.get("own").asText());
      for (Outcome o : Outcome.values()) if (o.name().equals(n.path("outcome").asText())) return o;
      return all.reportInputMismatch(Decided.class, "no decision: %s", n);
    }
  }
}
