package org.transitum.server.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.transitum.core.team.Role;
import org.transitum.server.TestServer;
import org.transitum.server.TestServer.Answer;
import org.transitum.server.TestServer.Client;
import tools.jackson.databind.JsonNode;

/** Facts with their sources, files that want mapping, doubts, bulk edits and undo, over HTTP. */
class InventoryTest {
  private static final String READINGS = "/api/v1/inventory/readings";
  private TestServer server;
  private Client lead;

  @BeforeEach
  void start() {
    server = TestServer.start();
    lead = server.as(Role.LEAD);
  }

  @AfterEach
  void stop() {
    server.close();
  }

  private JsonNode read(String name, String content) {
    Answer answer = lead.file(READINGS, name, content);
    assertThat(answer.status()).as(answer.toString()).isEqualTo(200);
    return answer.body().path("reading");
  }

  private Answer accept(JsonNode reading, Object body) {
    return lead.post(READINGS + "/" + reading.path("id").asLong() + "/accept", body);
  }

  private long take(String name, String content) {
    JsonNode reading = read(name, content);
    assertThat(accept(reading, Map.of()).status()).isEqualTo(200);
    return reading.path("id").asLong();
  }

  private JsonNode table(String kind) {
    return lead.get("/api/v1/inventory/table?kind=" + kind).body();
  }

  private String cell(String kind, String key, String column) {
    JsonNode table = table(kind);
    int row = -1;
    for (int i = 0; i < table.path("keys").size(); i++) {
      row = table.path("keys").get(i).asString().equals(key) ? i : row;
    }
    for (JsonNode candidate : table.path("columns")) {
      if (candidate.path("name").asString().equals(column)) {
        JsonNode value = candidate.path("values").get(row);
        return value == null || value.isNull() ? null : value.asString();
      }
    }
    throw new AssertionError(column);
  }

  private JsonNode fact(String key, String attribute) {
    for (JsonNode fact :
        lead.get("/api/v1/inventory/object?kind=DATABASE&key=" + key).body().path("attributes")) {
      if (fact.path("attribute").asString().equals(attribute)) {
        return fact;
      }
    }
    throw new AssertionError(attribute);
  }

  private Answer state(String key, String attribute, String value, boolean pinned) {
    return lead.put(
        "/api/v1/inventory/object/fact",
        Map.of(
            "kind",
            "DATABASE",
            "key",
            key,
            "attribute",
            attribute,
            "value",
            value,
            "pinned",
            pinned,
            "reason",
            "said on the phone"),
        fact(key, attribute).path("counts").path("id").asLong());
  }

  @Test
  void twoFilesThatDisagreeAreBothKeptAndShownAsAContradiction() {
    take("a.csv", "instance,database,owner\nA,one,Ann\n");
    take("b.csv", "instance,database,owner\nA,one,Bo\n");
    assertThat(cell("DATABASE", "A/one", "owner")).isEqualTo("Bo");
    assertThat(table("DATABASE").path("contradicted").path("A/one").get(0).asString())
        .isEqualTo("owner");
    JsonNode owner = fact("A/one", "owner");
    assertThat(owner.path("contradicted").asBoolean()).isTrue();
    assertThat(owner.path("counts").path("source").asString()).isEqualTo("b.csv");
    assertThat(owner.path("others").get(0).path("value").asString()).isEqualTo("Ann");
    assertThat(owner.path("others").get(0).path("latest").asBoolean()).isTrue();
    assertThat(state("A/one", "owner", "Ann", true).status()).isEqualTo(200);
    assertThat(table("DATABASE").path("contradicted").has("A/one")).isFalse();
    assertThat(read("b.csv", "instance,database,owner\nA,one,Bo\n").path("changes")).isEmpty();
  }

  @Test
  void aPinIsWithdrawnAndWhatTheFileSaysCountsAgain() {
    take("a.csv", "instance,database,owner\nA,one,Ann\n");
    assertThat(state("A/one", "owner", "Cy", true).status()).isEqualTo(200);
    long seen = fact("A/one", "owner").path("counts").path("id").asLong();
    Answer stale =
        lead.send(
            "DELETE",
            "/api/v1/inventory/object/fact?kind=DATABASE&key=A/one&attribute=owner",
            null,
            seen + 100);
    assertThat(stale.status()).isEqualTo(412);
    Answer gone =
        lead.send(
            "DELETE",
            "/api/v1/inventory/object/fact?kind=DATABASE&key=A/one&attribute=owner",
            null,
            seen);
    assertThat(gone.status()).isEqualTo(200);
    assertThat(cell("DATABASE", "A/one", "owner")).isEqualTo("Ann");
    assertThat(fact("A/one", "owner").path("others").toString()).contains("\"value\":\"Cy\"");
  }

  @Test
  void anAcceptedFileIsUndoneAsAWhole() {
    take("a.csv", "instance,database,owner,tables\nA,one,Ann,5\nA,two,Ann,7\n");
    long second = take("a.csv", "instance,database,owner,tables\nA,one,Bo,5\nA,three,Bo,1\n");
    assertThat(cell("DATABASE", "A/one", "owner")).isEqualTo("Bo");
    assertThat(table("DATABASE").path("keys").toString()).isEqualTo("[\"A/one\",\"A/three\"]");
    assertThat(lead.post(READINGS + "/" + second + "/undo", Map.of()).status()).isEqualTo(200);
    assertThat(table("DATABASE").path("keys").toString()).isEqualTo("[\"A/one\",\"A/two\"]");
    assertThat(cell("DATABASE", "A/one", "owner")).isEqualTo("Ann");
    assertThat(cell("DATABASE", "A/one", "tables")).isEqualTo("5");
    assertThat(lead.post(READINGS + "/" + second + "/undo", Map.of()).status()).isEqualTo(409);
    assertThat(lead.get(READINGS + "/accepted").body().get(0).path("undone").asBoolean()).isTrue();
    assertThat(
            read("a.csv", "instance,database,owner,tables\nA,one,Ann,5\nA,two,Ann,7\n")
                .path("changes"))
        .as("as if the second had never been")
        .isEmpty();
  }

  @Test
  void whatAnotherSourceToldOfStaysAfterAnUndo() {
    long first = take("a.csv", "instance,database,owner\nA,one,Ann\n");
    take("b.csv", "instance,database,tables\nA,one,3\n");
    lead.post(READINGS + "/" + first + "/undo", Map.of());
    assertThat(table("DATABASE").path("keys").toString()).isEqualTo("[\"A/one\"]");
    assertThat(cell("DATABASE", "A/one", "owner")).isNull();
    assertThat(cell("DATABASE", "A/one", "tables")).isEqualTo("3");
  }

  @Test
  void undoDoesNotTakeAwayWhatSomebodyIsCrossing() {
    long first = take("a.csv", "instance,database,size_bytes\nA,one,5 GB\n");
    lead.file(
        "/api/v1/waves/imports",
        "w.csv",
        "kind,wave,name,starts_at,ends_at,max_databases,max_gib\nwindow,W01,One,2099-01-02T20:00Z,2099-01-03T04:00Z,5,1000\n");
    lead.put("/api/v1/waves/placements", Map.of("group", "A/one", "wave", "W01"));
    lead.put("/api/v1/crossings/places", Map.of("database", "A/one", "place", "PREPARED"));
    Answer refused = lead.post(READINGS + "/" + first + "/undo", Map.of());
    assertThat(refused.status()).isEqualTo(409);
    assertThat(refused.body().path("detail").asString()).contains("A/one", "prepared or crossing");
    assertThat(cell("DATABASE", "A/one", "size_bytes")).isEqualTo(Long.toString(5L << 30));
  }

  @Test
  void aSpreadsheetIsMappedOnceAndItsShapeRemembered() {
    String sheet = "Server;DB name;Size (GB);Wombat\nHEAD;orders;2;7\nHEAD;stock;3 TB;8\n";
    JsonNode file = lead.file(READINGS, "list.csv", sheet).body().path("file");
    JsonNode columns = file.path("sheets").get(0).path("columns");
    assertThat(columns.get(2).path("target").asString()).isEqualTo("size_bytes");
    assertThat(columns.get(2).path("unit").asString()).isEqualTo("GB");
    assertThat(columns.get(3).path("target").asString()).isEmpty();
    assertThat(columns.get(3).path("sample").get(1).asString()).isEqualTo("8");
    List<Map<String, String>> mapping = new ArrayList<>();
    columns.forEach(
        c ->
            mapping.add(
                Map.of(
                    "header",
                    c.path("header").asString(),
                    "target",
                    c.path("header").asString().equals("Wombat")
                        ? "tables"
                        : c.path("target").asString(),
                    "unit",
                    c.path("unit").asString())));
    Answer opened = mapped(file, mapping);
    assertThat(opened.body().path("added").asInt()).isEqualTo(2);
    accept(opened.body(), Map.of());
    assertThat(cell("DATABASE", "HEAD/stock", "size_bytes")).isEqualTo(Long.toString(3L << 40));
    assertThat(cell("DATABASE", "HEAD/orders", "tables")).isEqualTo("7");
    JsonNode again = read("list.csv", sheet.replace("orders;2;7", "orders;4;7"));
    assertThat(again.path("changed").asInt()).isEqualTo(1);
    assertThat(mapped(file, mapping).status()).as("the file is no longer kept").isEqualTo(404);
  }

  private Answer mapped(JsonNode file, List<Map<String, String>> columns) {
    return lead.post(
        "/api/v1/inventory/files/" + file.path("id").asLong() + "/readings",
        Map.of("sheets", List.of(Map.of("sheet", "", "headerRow", 0, "columns", columns))));
  }

  @Test
  void aMappingThatCannotBeIsRefusedAndTheFileKept() {
    JsonNode file = lead.file(READINGS, "x.csv", "p,q\n1,2\n").body().path("file");
    Map<String, String> p = Map.of("header", "p", "target", "instance", "unit", "");
    assertThat(mapped(file, List.of(p, p)).body().path("detail").asString())
        .contains("Two columns cannot both mean instance");
    assertThat(mapped(file, List.of(p)).body().path("detail").asString())
        .contains("2 columns, the mapping 1");
    Map<String, String> odd = Map.of("header", "q", "target", "weight", "unit", "");
    assertThat(mapped(file, List.of(p, odd)).body().path("detail").asString())
        .contains("nothing that a column can mean");
    Map<String, String> q = Map.of("header", "q", "target", "database", "unit", "");
    assertThat(mapped(file, List.of(p, q)).body().path("added").asInt()).isEqualTo(1);
  }

  @Test
  void theRestOfAFaultyFileIsTakenWhenAPersonSaysSoAndTakesNothingAway() {
    take("list.csv", "instance,database,size_bytes\nHEAD-01,orders,1 GB\nHEAD-01,stock,2 GB\n");
    String faulty =
        "instance,database,size_bytes\nHEAD-01,orders,a lot\n,stock,2 GB\nHEAD-01,new,3 GB\n";
    Answer refused = lead.file(READINGS, "list.csv", faulty);
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("problems")).hasSize(2);
    assertThat(refused.body().path("restReadable").asBoolean()).isTrue();
    Answer rest = lead.send("POST", READINGS + "?name=list.csv&faulty=LEFT_OUT", faulty, null);
    JsonNode reading = rest.body().path("reading");
    assertThat(reading.path("added").asInt()).isEqualTo(1);
    assertThat(reading.path("gone").asInt()).as("stock's row was only faulty").isZero();
    assertThat(reading.path("unread")).hasSize(2);
    assertThat(reading.path("unread").get(0).asString()).contains("row 2", "size_bytes", "a lot");
    accept(reading, Map.of());
    assertThat(cell("DATABASE", "HEAD-01/orders", "size_bytes")).isEqualTo(Long.toString(1L << 30));
    assertThat(cell("DATABASE", "HEAD-01/new", "size_bytes")).isEqualTo(Long.toString(3L << 30));
  }

  @Test
  void aDoubtfulDatabaseIsTakenAsTheKnownOneAndItsNameRemembered() {
    take("a.csv", "instance,database,owner\nHEAD-01,orders,Ann\n");
    JsonNode reading = read("b.csv", "instance,database,tables\nhead_01,Orders,9\n");
    assertThat(reading.path("doubtful").asInt()).isEqualTo(1);
    assertThat(reading.path("changes").get(0).path("doubt").path("key").asString())
        .isEqualTo("HEAD-01/orders");
    Answer wrong =
        accept(reading, Map.of("same", Map.of("DATABASE:head_01/Orders", "HEAD-01/none")));
    assertThat(wrong.status()).isEqualTo(422);
    accept(reading, Map.of("same", Map.of("DATABASE:head_01/Orders", "HEAD-01/orders")));
    assertThat(table("DATABASE").path("keys").toString()).isEqualTo("[\"HEAD-01/orders\"]");
    assertThat(cell("DATABASE", "HEAD-01/orders", "tables")).isEqualTo("9");
    JsonNode next = read("b.csv", "instance,database,tables\nhead_01,Orders,10\n");
    assertThat(next.path("changes").get(0).path("key").asString()).isEqualTo("HEAD-01/orders");
  }

  @Test
  void manyValuesAreEditedAllOrNone() {
    take("a.csv", "instance,database,owner\nA,one,Ann\nA,two,Ann\n");
    Map<String, Object> good =
        Map.of("key", "A/one", "attribute", "permitted_outage_minutes", "value", "4 h");
    Map<String, Object> bad = Map.of("key", "A/two", "attribute", "criticality", "value", "vital");
    JsonNode preview = edit(List.of(good, bad), true).body();
    assertThat(preview.get(0).path("after").asString()).isEqualTo("240");
    assertThat(preview.get(1).path("problem").asString()).contains("\"vital\" is not one of");
    Answer refused = edit(List.of(good, bad), false);
    assertThat(refused.status()).isEqualTo(422);
    assertThat(refused.body().path("detail").asString()).contains("A/two", "Nothing was stored");
    assertThat(cell("DATABASE", "A/one", "permitted_outage_minutes")).isNull();
    assertThat(edit(List.of(good), false).status()).isEqualTo(200);
    assertThat(cell("DATABASE", "A/one", "permitted_outage_minutes")).isEqualTo("240");
    JsonNode missing =
        edit(List.of(Map.of("key", "A/nine", "attribute", "owner", "value", "x")), true).body();
    assertThat(missing.get(0).path("problem").asString()).contains("no database of this name");
  }

  private Answer edit(List<Map<String, Object>> edits, boolean dryRun) {
    return lead.post(
        "/api/v1/inventory/edits",
        Map.of("kind", "DATABASE", "edits", edits, "pinned", false, "dryRun", dryRun));
  }

  @Test
  void questionsGoOutPerOwnerAndComeBackAsAnInventory() {
    take(
        "a.csv", "instance,database,owner,size_bytes\nA,one,Ann,5\nA,two,=cmd|calc,7\nA,three,,\n");
    JsonNode owners = lead.get("/api/v1/inventory/questions").body();
    assertThat(owners).hasSize(3);
    assertThat(owners.get(0).path("owner").asString()).isEmpty();
    assertThat(owners.get(0).path("gaps").asInt()).isEqualTo(5);
    Answer file = lead.get("/api/v1/inventory/questions/file?owner=Ann");
    assertThat(file.response().body())
        .isEqualTo(
            "instance,database,size_bytes,owner,criticality,permitted_outage_minutes,disposition\r\n"
                + "A,one,5,Ann,,,\r\n");
    assertThat(lead.get("/api/v1/inventory/questions/file?owner=%3Dcmd%7Ccalc").response().body())
        .contains("'=cmd|calc")
        .doesNotContain(",=cmd");
    JsonNode back = read("ann.csv", file.response().body().replace("Ann,,,", "Ann,high,4 h,move"));
    assertThat(back.path("changes").get(0).path("attributes")).hasSize(3);
  }

  @Test
  void factsGrowStaleByTheLeadsLimitAndAFileToldAgainFreshensThem() {
    take("a.csv", "instance,database,owner\nA,one,Ann\n");
    assertThat(table("DATABASE").path("stale").has("A/one")).isFalse();
    JsonNode programme = lead.get("/api/v1/programme").body();
    assertThat(programme.path("staleAfterDays").asInt()).isEqualTo(30);
    int version = programme.path("version").asInt();
    assertThat(lead.put("/api/v1/programme/stale-after", Map.of("days", 0), version).status())
        .isEqualTo(422);
    assertThat(lead.put("/api/v1/programme/stale-after", Map.of("days", 7), version).status())
        .isEqualTo(200);
    assertThat(lead.put("/api/v1/programme/stale-after", Map.of("days", 9), version).status())
        .isEqualTo(412);
  }

  @Test
  void applicationsInstancesAndHostsHaveTablesOfTheirOwn() {
    take(
        "all.csv",
        "instance,host,engine,cpu_cores,database,size_bytes,application\n"
            + "A,h1,PostgreSQL,8,one,5 GB,Billing\nA,h1,PostgreSQL,8,two,3 GB,Billing\nB,h1,Oracle,8,uno,,\n");
    take("apps.csv", "application,owner,criticality\nBilling,Ann,high\n");
    assertThat(cell("HOST", "h1", "databases")).isEqualTo("3");
    assertThat(cell("INSTANCE", "A", "total_size_bytes")).isEqualTo(Long.toString(8L << 30));
    assertThat(cell("INSTANCE", "B", "total_size_bytes")).as("unknown, not 0").isNull();
    assertThat(cell("HOST", "h1", "unsized")).isEqualTo("1");
    assertThat(cell("INSTANCE", "B", "cpu_cores")).isEqualTo("8");
    assertThat(cell("APPLICATION", "Billing", "databases")).isEqualTo("2");
    assertThat(cell("DATABASE", "A/one", "owner")).as("from its application").isEqualTo("Ann");
    assertThat(cell("DATABASE", "B/uno", "engine")).isEqualTo("Oracle");
  }

  @Test
  void savedViewsAreEachPersonsOwn() {
    Client observer = server.as(Role.OBSERVER);
    Map<String, String> view = Map.of("name", "Mine", "address", "owner=Ann&by=none");
    assertThat(observer.put("/api/v1/inventory/views", view).body()).hasSize(1);
    assertThat(lead.get("/api/v1/inventory/views").body()).isEmpty();
    long id = observer.get("/api/v1/inventory/views").body().get(0).path("id").asLong();
    assertThat(lead.delete("/api/v1/inventory/views/" + id).status()).isEqualTo(404);
    observer.put("/api/v1/inventory/views", Map.of("name", "Mine", "address", "by=wave"));
    assertThat(observer.get("/api/v1/inventory/views").body().get(0).path("address").asString())
        .isEqualTo("by=wave");
    assertThat(observer.delete("/api/v1/inventory/views/" + id).body()).isEmpty();
  }
}
