using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.Json.Schema;
using System.Text.Json.Serialization.Metadata;
using RuddySpring.Server.Hosting;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>How a household's file is written and read, and its schema.</summary>
public static class HouseholdJson
{
    /// <summary>Strict, as every contract.</summary>
    public static readonly JsonSerializerOptions Options = Made();

    private static JsonSerializerOptions Made()
    {
        var options = new JsonSerializerOptions(JsonSerializerDefaults.Web)
        {
            TypeInfoResolver = new DefaultJsonTypeInfoResolver(),
            UnmappedMemberHandling = System.Text.Json.Serialization.JsonUnmappedMemberHandling.Disallow,
        };
        ContractJson.Set(options);
        options.MakeReadOnly();
        return options;
    }

    /// <summary>The JSON Schema (2020-12) of the file.</summary>
    public static JsonNode Schema()
    {
        var schema = Options
            .GetJsonSchemaAsNode(typeof(HouseholdFile), new JsonSchemaExporterOptions { TreatNullObliviousAsNonNullable = true })
            .AsObject();
        var properties = schema["properties"]!.AsObject();
        properties["format"] = new JsonObject { ["const"] = HouseholdFile.FormatName };
        properties["version"] = new JsonObject { ["const"] = HouseholdFile.CurrentVersion };
        schema.Insert(0, "$schema", "https://json-schema.org/draft/2020-12/schema");
        schema.Insert(1, "title", "A household of Ruddy Spring");
        return schema;
    }
}
