namespace RuddySpring.Server.Hosting;

/// <summary>What went wrong behind the screens and should be known on them: each thing once, the newest few.</summary>
public sealed class Troubles
{
    private const int Most = 8;
    private readonly Lock _lock = new();
    private readonly List<string> _sentences = [];

    /// <summary>The sentences, oldest first.</summary>
    public IReadOnlyList<string> Sentences
    {
        get
        {
            lock (_lock)
                return [.. _sentences];
        }
    }

    /// <summary>Tells something, unless it has been told.</summary>
    public void Tell(string sentence)
    {
        lock (_lock)
        {
            if (_sentences.Contains(sentence))
                return;
            _sentences.Add(sentence);
            if (_sentences.Count > Most)
                _sentences.RemoveAt(0);
        }
    }

    /// <summary>Takes something back that is no longer so.</summary>
    public void Over(string sentence)
    {
        lock (_lock)
            _sentences.Remove(sentence);
    }
}
