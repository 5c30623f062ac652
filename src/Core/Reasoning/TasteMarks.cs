namespace RuddySpring.Core.Reasoning;

/// <summary>How a shot tasted, 0 (none) to 4 (very) each; liking from 1 to 5. Null where not said.</summary>
public sealed record TasteMarks(int? Sour, int? Bitter, int? Dry, int? Sweet, int? Body, int? Liking)
{
    /// <summary>A mark: none to very.</summary>
    public static readonly FieldRange Mark = new("taste", "Taste", 0, 4, "");

    /// <summary>How much it was liked.</summary>
    public static readonly FieldRange HowLiked = new("liking", "Liking", 1, 5, "");

    /// <summary>Nothing said.</summary>
    public static readonly TasteMarks None = new(null, null, null, null, null, null);
}
