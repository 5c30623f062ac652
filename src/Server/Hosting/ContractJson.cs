using System.Collections;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;

namespace RuddySpring.Server.Hosting;

/// <summary>A member of a body that does not do.</summary>
/// <param name="field">Its name.</param>
/// <param name="sentence">What is wrong and what would do.</param>
public sealed class FieldValueException(string field, string sentence) : JsonException(sentence)
{
    public string Field { get; } = field;

    public string Sentence { get; } = sentence;
}

/// <summary>
/// How contracts are read: required members are required, what is not nullable is never null, not inside lists either, choices
/// are named and never numbered, numbers are numbers, texts and lists have an end.
/// </summary>
public static class ContractJson
{
    /// <summary>Longest text of any field, characters; most fields allow less.</summary>
    public const int LongestText = 4000;

    /// <summary>Longest list of any field; most fields allow less.</summary>
    public const int LongestList = 1000;

    /// <summary>Sets a serializer to it.</summary>
    public static void Set(JsonSerializerOptions options)
    {
        options.Converters.Add(new JsonStringEnumConverter(null, allowIntegerValues: false));
        options.NumberHandling = JsonNumberHandling.Strict;
        options.RespectNullableAnnotations = true;
        options.RespectRequiredConstructorParameters = true;
        options.MaxDepth = 16;
        options.TypeInfoResolver = (options.TypeInfoResolver ?? new DefaultJsonTypeInfoResolver()).WithAddedModifier(
            CheckMembers
        );
    }

    /// <summary>After an object was read its texts and lists are looked through: the serializer itself lets nulls into lists and
    /// any length into both.</summary>
    private static void CheckMembers(JsonTypeInfo type)
    {
        if (type.Kind != JsonTypeInfoKind.Object)
            return;
        var nullability = new NullabilityInfoContext();
        var members = type
            .Type.GetProperties(BindingFlags.Public | BindingFlags.Instance)
            .Where(p => p.GetIndexParameters().Length == 0 && (p.PropertyType == typeof(string) || IsList(p.PropertyType)))
            .Select(p =>
                (
                    Name: type.Options.PropertyNamingPolicy?.ConvertName(p.Name) ?? p.Name,
                    Get: (Func<object, object?>)p.GetValue,
                    NoNulls: IsList(p.PropertyType)
                        && nullability.Create(p).GenericTypeArguments[^1].ReadState == NullabilityState.NotNull
                )
            )
            .ToList();
        if (members.Count == 0)
            return;
        var before = type.OnDeserialized;
        type.OnDeserialized = read =>
        {
            before?.Invoke(read);
            foreach (var member in members)
            {
                switch (member.Get(read))
                {
                    case string text:
                        CheckText(member.Name, text);
                        break;
                    case IEnumerable list:
                        CheckList(member.Name, list, member.NoNulls);
                        break;
                }
            }
        };
    }

    private static bool IsList(Type type) => type.IsGenericType && typeof(IEnumerable).IsAssignableFrom(type);

    private static void CheckList(string name, IEnumerable list, bool noNulls)
    {
        var count = 0;
        foreach (var value in list)
        {
            if (value is null && noNulls)
                throw new FieldValueException(name, $"{name} must hold no empty entries.");
            if (++count > LongestList)
                throw new FieldValueException(
                    name,
                    $"{name} has more than {LongestList} entries; at most {LongestList} are read."
                );
            if (value is string text)
                CheckText(name, text);
        }
    }

    private static void CheckText(string name, string text)
    {
        if (text.Length > LongestText)
            throw new FieldValueException(name, $"{name} has {text.Length} characters; at most {LongestText} are read.");
        if (text.Any(c => char.IsControl(c) && c is not ('\n' or '\r' or '\t')))
            throw new FieldValueException(name, $"{name} holds characters that cannot be shown; use letters, digits and signs.");
    }
}
