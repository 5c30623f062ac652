using System.Text;

namespace RuddySpring.Server.Instruments;

/// <summary>Cuts a stream of bytes into lines, whatever pieces it arrives in. Lines over the limit are dropped whole and
/// counted.</summary>
public sealed class LineSplitter(int longest)
{
    private readonly byte[] _line = new byte[longest];
    private int _length;
    private bool _tooLong;

    /// <summary>How many lines were too long.</summary>
    public int TooLong { get; private set; }

    /// <summary>Whether bytes of an unfinished line wait.</summary>
    public bool HasHalfLine => _length > 0 || _tooLong;

    /// <summary>Takes a piece and gives the lines that it completes, without their line ends; empty lines are left out.</summary>
    public List<string> Take(ReadOnlySpan<byte> piece)
    {
        var lines = new List<string>();
        foreach (var value in piece)
        {
            if (value == (byte)'\n')
            {
                if (_tooLong)
                    TooLong++;
                else if (Finish() is { Length: > 0 } line)
                    lines.Add(line);
                _length = 0;
                _tooLong = false;
            }
            else if (_length < longest)
            {
                _line[_length++] = value;
            }
            else
            {
                _tooLong = true;
            }
        }

        return lines;
    }

    /// <summary>What is left when the stream ends, or null.</summary>
    public string? Rest()
    {
        var rest = _tooLong ? null : Finish();
        _length = 0;
        return string.IsNullOrEmpty(rest) ? null : rest;
    }

    private string Finish() => Encoding.UTF8.GetString(_line, 0, _length).Trim();
}
