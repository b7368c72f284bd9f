package org.transitum.server.web;

import io.swagger.v3.oas.models.OpenAPI;
import io.swagger.v3.oas.models.info.Info;
import io.swagger.v3.oas.models.media.Schema;
import java.lang.reflect.RecordComponent;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springdoc.core.customizers.OpenApiCustomizer;
import org.springdoc.core.customizers.OperationCustomizer;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.ClassPathScanningCandidateComponentProvider;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.type.filter.AssignableTypeFilter;
import org.transitum.server.team.AllowedTo;

/**
 * Tells in the API's description what the records tell: a component without {@link Nullable} is
 * always there, and which roles may call an operation ({@code x-allowed}).
 */
@Configuration
class ApiDescription {

  @Bean
  OpenAPI api() {
    return new OpenAPI()
        .info(
            new Info()
                .title("Transitum")
                .version("1")
                .description("The programme's estate, sizes, waves and crossings."));
  }

  @Bean
  OperationCustomizer allowedRoles() {
    return (operation, method) -> {
      AllowedTo allowed = method.getMethodAnnotation(AllowedTo.class);
      List<String> roles =
          allowed == null
              ? List.of()
              : Arrays.stream(allowed.value())
                  .map(role -> role.name().toLowerCase(Locale.ROOT))
                  .toList();
      operation.addExtension("x-allowed", roles);
      if (allowed != null && allowed.tokens().length > 0) {
        operation.addExtension(
            "x-allowed-tokens",
            Arrays.stream(allowed.tokens())
                .map(purpose -> purpose.name().toLowerCase(Locale.ROOT))
                .toList());
      }
      return operation;
    };
  }

  @Bean
  OpenApiCustomizer required() {
    return api -> {
      if (api.getComponents() == null || api.getComponents().getSchemas() == null) {
        return;
      }
      api.setServers(List.of());
      Map<String, Class<?>> records = records();
      api.getComponents()
          .getSchemas()
          .forEach((name, schema) -> require(schema, records.get(name)));
    };
  }

  private static void require(Schema<?> schema, @Nullable Class<?> record) {
    if (record == null || schema.getProperties() == null) {
      return;
    }
    List<String> required = new ArrayList<>();
    for (RecordComponent component : record.getRecordComponents()) {
      if (!component.getAnnotatedType().isAnnotationPresent(Nullable.class)) {
        required.add(component.getName());
      }
    }
    schema.setRequired(required);
  }

  private static Map<String, Class<?>> records() {
    ClassPathScanningCandidateComponentProvider scanner =
        new ClassPathScanningCandidateComponentProvider(false) {
          @Override
          protected boolean isCandidateComponent(
              org.springframework.beans.factory.annotation.AnnotatedBeanDefinition definition) {
            return true;
          }
        };
    scanner.addIncludeFilter(new AssignableTypeFilter(Record.class));
    Map<String, Class<?>> records = new HashMap<>();
    scanner
        .findCandidateComponents("org.transitum")
        .forEach(
            definition -> {
              try {
                Class<?> type = Class.forName(definition.getBeanClassName());
                records.put(type.getSimpleName(), type);
              } catch (ClassNotFoundException e) {
                throw new IllegalStateException(e);
              }
            });
    return records;
  }
}
