using System.Runtime.CompilerServices;
using System.Text.Json;
using RuddySpring.Core;

namespace RuddySpring.Server.Exchange.Households;

/// <summary>A piece of a file: a member of the outermost object, or an entry of a list in it.</summary>
/// <param name="Name">Of the member.</param>
/// <param name="Index">Place in the list, from 0; null for a member that is no list.</param>
/// <param name="Json">Its text; good until the next piece is read.</param>
/// <param name="Line">Line of the file that it begins on.</param>
/// <param name="Offset">Bytes of the file that were read up to its end.</param>
public sealed record FilePiece(string Name, int? Index, ReadOnlyMemory<byte> Json, long Line, long Offset);

/// <summary>Reads a JSON object of lists piece by piece, in memory for its largest piece.</summary>
public sealed class SectionReader(Stream stream)
{
    /// <summary>Largest piece that is read, bytes.</summary>
    public const int LargestPiece = 16 * 1024 * 1024;

    private const int FirstBuffer = 64 * 1024;
    private byte[] _buffer = new byte[FirstBuffer];
    private int _start;
    private int _end;
    private long _passed;
    private long _line = 1;
    private bool _isWhole;
    private JsonReaderState _state = new(new JsonReaderOptions { MaxDepth = 32 });
    private string _name = "";
    private int? _index;

    /// <summary>The pieces in their order.</summary>
    /// <exception cref="DoesNotFitException">It is no JSON object, it is cut off, or a piece is too large.</exception>
    public async IAsyncEnumerable<FilePiece> ReadAsync([EnumeratorCancellation] CancellationToken cancel)
    {
        while (true)
        {
            FilePiece? piece;
            bool isOver;
            try
            {
                isOver = Next(out piece);
            }
            catch (JsonException error)
            {
                throw new DoesNotFitException(
                    "file",
                    _isWhole && _passed + _end > 0 && IsCutOff()
                        ? $"The file ends in the middle, at line {LineAt(_end)}: it is cut off. Nothing was changed."
                        : $"The file is not valid JSON near line {error.LineNumber + 1}."
                );
            }

            if (piece is not null)
                yield return piece;
            else if (isOver)
                yield break;
            else
                await FillAsync(cancel);
        }
    }

    /// <summary>The next piece, if all of it has been read; whether the object is over.</summary>
    private bool Next(out FilePiece? piece)
    {
        piece = null;
        var reader = new Utf8JsonReader(_buffer.AsSpan(_start, _end - _start), _isWhole, _state);
        while (true)
        {
            if (!reader.Read())
            {
                Pass(reader);
                return _isWhole;
            }

            switch (reader.TokenType)
            {
                case JsonTokenType.StartObject when reader.CurrentDepth == 0:
                case JsonTokenType.EndObject when reader.CurrentDepth == 0:
                    break;
                case JsonTokenType.PropertyName when reader.CurrentDepth == 1:
                    _name = reader.GetString()!;
                    _index = null;
                    break;
                case JsonTokenType.StartArray when reader.CurrentDepth == 1 && _index is null:
                    _index = 0;
                    break;
                case JsonTokenType.EndArray when reader.CurrentDepth == 1:
                    break;
                default:
                    if (reader.CurrentDepth == 0)
                        throw new DoesNotFitException("file", "The file is not a household: it must be one JSON object.");
                    var from = (int)reader.TokenStartIndex;
                    if (!reader.TrySkip())
                        return false; // the rest of it is still to come
                    var json = _buffer.AsMemory(_start + from, (int)reader.BytesConsumed - from);
                    var line = LineAt(_start + from);
                    Pass(reader);
                    piece = new(_name, _index, json, line, _passed + _start);
                    if (_index is not null)
                        _index++;
                    return false;
            }

            Pass(reader);
            reader = new Utf8JsonReader(_buffer.AsSpan(_start, _end - _start), _isWhole, _state);
        }
    }

    private void Pass(Utf8JsonReader reader)
    {
        var read = (int)reader.BytesConsumed;
        _line += _buffer.AsSpan(_start, read).Count((byte)'\n');
        _start += read;
        _state = reader.CurrentState;
    }

    private long LineAt(int at) => _line + _buffer.AsSpan(_start, Math.Max(0, at - _start)).Count((byte)'\n');

    /// <summary>Whether what is left would go on.</summary>
    private bool IsCutOff()
    {
        try
        {
            var reader = new Utf8JsonReader(_buffer.AsSpan(_start, _end - _start), false, _state);
            while (reader.Read()) { }
            return true;
        }
        catch (JsonException)
        {
            return false;
        }
    }

    private async Task FillAsync(CancellationToken cancel)
    {
        if (_start > 0)
        {
            _buffer.AsSpan(_start, _end - _start).CopyTo(_buffer);
            _passed += _start;
            _end -= _start;
            _start = 0;
        }

        if (_end == _buffer.Length)
        {
            if (_buffer.Length >= LargestPiece)
                throw new DoesNotFitException(
                    "file",
                    $"A piece of the file from line {_line} on is larger than {LargestPiece / 1024 / 1024} MB, the most "
                        + "that is read."
                );
            Array.Resize(ref _buffer, _buffer.Length * 2);
        }

        var got = await stream.ReadAsync(_buffer.AsMemory(_end), cancel);
        if (got == 0)
        {
            if (_isWhole)
                throw new DoesNotFitException("file", $"The file ends in the middle, at line {LineAt(_end)}: it is cut off.");
            _isWhole = true;
        }

        _end += got;
    }
}
