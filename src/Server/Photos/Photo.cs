using RuddySpring.Core;
using RuddySpring.Store.Entities;
using SkiaSharp;

namespace RuddySpring.Server.Photos;

/// <summary>A picture that was drawn again: what the camera wrote beside it (place, time, owner) is not in it.</summary>
public sealed class Photo
{
    /// <summary>Largest file that is read, bytes.</summary>
    public const int LargestFile = 12 * 1024 * 1024;

    private const int MostPixels = 50_000_000;
    private const int LongestSide = 1600;
    private const int SmallSide = 160;
    private const int Quality = 85;

    private readonly byte[] _jpeg;
    private readonly byte[] _small;
    private readonly int _width;
    private readonly int _height;

    private Photo(SKBitmap picture)
    {
        _jpeg = Encoded(picture);
        (_width, _height) = (picture.Width, picture.Height);
        using var small = Sized(picture, SmallSide);
        _small = Encoded(small);
    }

    /// <summary>Reads a picture (JPEG, PNG, WebP), turns it the way it was held, and draws it no longer than 1600
    /// pixels.</summary>
    /// <exception cref="DoesNotFitException">It is no picture, or too large.</exception>
    public static Photo Drawn(byte[] file)
    {
        if (file.Length > LargestFile)
            throw new DoesNotFitException("photo", $"The photo is larger than {LargestFile / 1024 / 1024} MB.");
        using var data = SKData.CreateCopy(file);
        using var codec = SKCodec.Create(data) ?? throw NoPicture();
        var (width, height) = (codec.Info.Width, codec.Info.Height);
        if ((long)width * height > MostPixels)
            throw new DoesNotFitException(
                "photo",
                $"The photo has {width} by {height} pixels; at most {MostPixels / 1_000_000} million are read."
            );
        // a large one is read at a fraction of its size where its form allows: it need not be in memory whole
        var size = codec.GetScaledDimensions(Math.Min(1f, 2f * LongestSide / Math.Max(width, height)));
        using var read = new SKBitmap(new SKImageInfo(size.Width, size.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(read.Info, read.GetPixels()) is not (SKCodecResult.Success or SKCodecResult.IncompleteInput))
            throw NoPicture();
        using var sized = Sized(read, LongestSide);
        using var upright = Upright(sized, codec.EncodedOrigin);
        return new(upright);
    }

    /// <summary>The picture as a row of a shot.</summary>
    public ShotPhoto For(int shotId, DateTime addedAt) =>
        new()
        {
            ShotId = shotId,
            AddedAt = addedAt,
            Width = _width,
            Height = _height,
            Jpeg = _jpeg,
            Small = _small,
        };

    private static DoesNotFitException NoPicture() =>
        new("photo", "The file cannot be read as a picture; use JPEG, PNG or WebP.");

    private static byte[] Encoded(SKBitmap picture)
    {
        using var data = picture.Encode(SKEncodedImageFormat.Jpeg, Quality);
        return data.ToArray();
    }

    private static SKBitmap Sized(SKBitmap picture, int longest)
    {
        var scale = Math.Min(1.0, longest / (double)Math.Max(picture.Width, picture.Height));
        var info = new SKImageInfo(
            Math.Max(1, (int)Math.Round(picture.Width * scale)),
            Math.Max(1, (int)Math.Round(picture.Height * scale)),
            SKColorType.Rgba8888,
            SKAlphaType.Premul
        );
        return picture.Resize(info, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)) ?? throw NoPicture();
    }

    /// <summary>Turned and mirrored as the camera was held (the eight orientations of Exif 2.3, tag 0x0112), on white.</summary>
    private static SKBitmap Upright(SKBitmap picture, SKEncodedOrigin origin)
    {
        var turned = origin >= SKEncodedOrigin.LeftTop;
        var (width, height) = turned ? (picture.Height, picture.Width) : (picture.Width, picture.Height);
        var upright = new SKBitmap(new SKImageInfo(width, height, SKColorType.Rgba8888, SKAlphaType.Premul));
        using var canvas = new SKCanvas(upright);
        canvas.Clear(SKColors.White);
        // where a point of the picture goes: x' = a x + b y + c, y' = d x + e y + f
        float w = picture.Width,
            h = picture.Height;
        canvas.Concat(
            origin switch
            {
                SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
                SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
                SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
                SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
                SKEncodedOrigin.RightTop => new SKMatrix(0, -1, h, 1, 0, 0, 0, 0, 1),
                SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, h, -1, 0, w, 0, 0, 1),
                SKEncodedOrigin.LeftBottom => new SKMatrix(0, 1, 0, -1, 0, w, 0, 0, 1),
                _ => SKMatrix.Identity,
            }
        );
        canvas.DrawBitmap(picture, 0, 0);
        return upright;
    }
}
