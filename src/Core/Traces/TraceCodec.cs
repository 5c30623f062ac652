using System.IO.Compression;

namespace RuddySpring.Core.Traces;

/// <summary>
/// Packs a trace into few bytes: times in ms and values in the channel's quantum, as differences in zigzag variable-length
/// integers, then Brotli. Lossless to the quantum: 1 ms, 0.001 bar, 0.01 g, 0.01 degC, 0.001 ml/s.
/// </summary>
public static class TraceCodec
{
    private const byte Version = 1;
    private const int MostSamples = 2_000_000;

    /// <summary>Bytes of a trace.</summary>
    public static byte[] Encode(Trace trace)
    {
        using var raw = new MemoryStream();
        raw.WriteByte(Version);
        WriteUnsigned(raw, (ulong)trace.Series.Count);
        foreach (var series in trace.Series)
        {
            raw.WriteByte((byte)series.Channel);
            raw.WriteByte((byte)series.Origin);
            WriteUnsigned(raw, (ulong)series.Count);
            WriteDifferences(raw, series.Seconds, 1000.0);
            WriteDifferences(raw, series.Values, QuantaPerUnit(series.Channel));
        }

        using var packed = new MemoryStream();
        using (var brotli = new BrotliStream(packed, CompressionLevel.Optimal, true))
            brotli.Write(raw.GetBuffer(), 0, (int)raw.Length);
        return packed.ToArray();
    }

    /// <summary>The trace in bytes made by <see cref="Encode"/>.</summary>
    /// <exception cref="InvalidDataException">The bytes are not a trace.</exception>
    public static Trace Decode(byte[] bytes)
    {
        using var raw = new MemoryStream();
        try
        {
            using var brotli = new BrotliStream(new MemoryStream(bytes), CompressionMode.Decompress);
            brotli.CopyTo(raw);
        }
        catch (InvalidOperationException error)
        {
            throw new InvalidDataException("The stored trace cannot be unpacked.", error);
        }

        raw.Position = 0;
        if (raw.ReadByte() != Version)
            throw new InvalidDataException("The stored trace has an unknown version.");
        var series = new List<Series>();
        var count = ReadCount(raw);
        for (var i = 0; i < count; i++)
        {
            var channel = (Channel)raw.ReadByte();
            var origin = (Origin)raw.ReadByte();
            var samples = ReadCount(raw);
            series.Add(
                new(channel, origin, ReadDifferences(raw, samples, 1000.0), ReadDifferences(raw, samples, QuantaPerUnit(channel)))
            );
        }

        return new(series);
    }

    private static double QuantaPerUnit(Channel channel) => channel is Channel.Pressure or Channel.Flow ? 1000.0 : 100.0;

    private static void WriteDifferences(Stream stream, IReadOnlyList<double> values, double quanta)
    {
        var last = 0L;
        foreach (var value in values)
        {
            var whole = (long)Math.Round(value * quanta, MidpointRounding.AwayFromZero);
            var difference = whole - last;
            WriteUnsigned(stream, (ulong)((difference << 1) ^ (difference >> 63)));
            last = whole;
        }
    }

    private static double[] ReadDifferences(Stream stream, int count, double quanta)
    {
        var values = new double[count];
        var last = 0L;
        for (var i = 0; i < count; i++)
        {
            var zigzag = ReadUnsigned(stream);
            last += (long)(zigzag >> 1) ^ -(long)(zigzag & 1);
            values[i] = last / quanta;
        }

        return values;
    }

    private static void WriteUnsigned(Stream stream, ulong value)
    {
        while (value >= 0x80)
        {
            stream.WriteByte((byte)(value | 0x80));
            value >>= 7;
        }

        stream.WriteByte((byte)value);
    }

    private static ulong ReadUnsigned(Stream stream)
    {
        var value = 0UL;
        for (var shift = 0; shift < 64; shift += 7)
        {
            var next = stream.ReadByte();
            if (next < 0)
                throw new InvalidDataException("The stored trace ends early.");
            value |= (ulong)(next & 0x7F) << shift;
            if (next < 0x80)
                return value;
        }

        throw new InvalidDataException("The stored trace holds a number that is too long.");
    }

    private static int ReadCount(Stream stream)
    {
        var count = ReadUnsigned(stream);
        return count <= MostSamples ? (int)count : throw new InvalidDataException("The stored trace claims too many samples.");
    }
}
