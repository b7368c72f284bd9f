package org.transitum.server;

import java.util.Map;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** Five databases on two instances and three windows: enough for a plan and a crossing. */
public final class SmallEstate {
  public static final String DATABASES =
      """
      instance,database,size_bytes,criticality,permitted_outage_minutes,disposition
      PG-1,orders,10737418240,high,240,move
      PG-1,stock,21474836480,medium,240,move
      PG-1,scratch,1073741824,low,1440,retire
      MY-1,crew,5368709120,low,480,move
      MY-1,maps,5368709120,medium,480,move
      """;

  public static final String WINDOWS =
      """
      kind,wave,name,starts_at,ends_at,max_databases,max_gib
      window,W01,Past,2020-01-02T20:00Z,2020-01-03T04:00Z,9,1000
      window,W02,First,2099-01-02T20:00Z,2099-01-03T04:00Z,2,1000
      window,W03,Second,2099-01-09T20:00Z,2099-01-10T04:00Z,5,1000
      window,W04,Frozen,2099-01-16T20:00Z,2099-01-17T04:00Z,5,1000
      freeze,,Stocktaking,2099-01-15T00:00Z,2099-01-18T00:00Z,,
      """;

  private SmallEstate() {}

  public static void read(Client lead) {
    accept(lead, "servers.csv", "instance,host,engine\nPG-1,h1,PostgreSQL\nMY-1,h2,MariaDB\n");
    accept(lead, "databases.csv", DATABASES);
    ok(lead.file("/api/v1/waves/imports", "windows.csv", WINDOWS));
  }

  public static Answer accept(Client lead, String file, String content) {
    Answer reading = ok(lead.file("/api/v1/inventory/readings", file, content));
    return ok(
        lead.post(
            "/api/v1/inventory/readings/"
                + reading.body().path("reading").path("id").asLong()
                + "/accept",
            Map.of()));
  }

  public static void tie(Client lead, String from, String to, String kind) {
    ok(
        lead.post(
            "/api/v1/dependencies/ties",
            Map.of("from", from, "to", to, "kind", kind, "weight", 2, "words", "said in a test")));
  }

  public static Answer place(Client lead, String group, String seen, String wave) {
    return lead.put(
        "/api/v1/waves/placements",
        seen == null
            ? Map.of("group", group, "wave", wave)
            : Map.of("group", group, "seen", seen, "wave", wave));
  }

  public static Answer ok(Answer answer) {
    if (answer.status() >= 300) {
      throw new AssertionError(answer.toString());
    }
    return answer;
  }

  /** The element of an array whose field has a value. */
  public static JsonNode where(JsonNode array, String field, String value) {
    for (JsonNode node : array) {
      if (node.path(field).asString("").equals(value)) {
        return node;
      }
    }
    throw new AssertionError("no " + field + " " + value + " in " + array);
  }
}
