package org.transitum.server.counters;

import java.io.BufferedInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.function.LongConsumer;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.EstateStore;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.CountersCsv;
import org.transitum.sources.counters.MetricMapping;
import org.transitum.sources.counters.MetricTargets;
import org.transitum.sources.counters.MetricsRead;
import org.transitum.sources.counters.OpenMetricsReader;
import org.transitum.sources.counters.SadfReader;

/** Reads a file of counters in whichever of the known forms its beginning shows. */
@Component
class CounterFiles {
  private static final int LOOKED = 8_192;
  private static final Pattern METRIC =
      Pattern.compile("(?s)(# (HELP|TYPE|UNIT|EOF).*|[A-Za-z_:][\\w:]*\\{[^\\n]*)");

  private final EstateStore estate;

  CounterFiles(EstateStore estate) {
    this.estate = estate;
  }

  MetricsRead read(String name, InputStream content, CounterSink sink, LongConsumer progress)
      throws IOException {
    BufferedInputStream in = new BufferedInputStream(content, 1 << 16);
    in.mark(LOOKED);
    String start = new String(in.readNBytes(LOOKED), StandardCharsets.UTF_8).stripLeading();
    in.reset();
    TargetFinder finder = new TargetFinder(estate, Map.of());
    if (start.startsWith("{")) {
      return SadfReader.readJson(name, in, finder, this::cores, sink);
    }
    if (start.startsWith("# hostname;")) {
      return SadfReader.readTable(name, in, finder, this::cores, sink);
    }
    if (METRIC.matcher(start).matches()) {
      return OpenMetricsReader.read(
          name, in, MetricMapping.standard(), new MetricTargets(finder), sink, progress);
    }
    return CountersCsv.read(name, in, sink, progress);
  }

  private double cores(String host) {
    return estate
        .find(ObjectKind.HOST, host)
        .flatMap(object -> object.decimal(Attribute.CPU_CORES))
        .orElse(Double.NaN);
  }
}
