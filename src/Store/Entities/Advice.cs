using RuddySpring.Core.Reasoning;

namespace RuddySpring.Store.Entities;

/// <summary>Advice that somebody took from a shot, and how it came out.</summary>
public sealed class Advice
{
    public int Id { get; set; }

    /// <summary>The shot that it was given for; the newest that was taken counts.</summary>
    public int ShotId { get; set; }

    /// <summary>When it was taken, UTC.</summary>
    public DateTime TakenAt { get; set; }

    /// <summary>What was advised; stored as JSON.</summary>
    public TakenAdvice Taken { get; set; } = new("", new("", "", ""));

    /// <summary>The shot that it was judged by; null while there is none.</summary>
    public int? JudgedById { get; set; }

    /// <summary>Whether it worked; null where it was not followed or cannot be told.</summary>
    public bool? Worked { get; set; }

    /// <summary>The same in words.</summary>
    public string Sentence { get; set; } = "";
}
