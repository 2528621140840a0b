using BitMiracle.LibJpeg.Classic;
using Daxlin.Reading.Drawing;

namespace Daxlin.Reading.Pdf.Content;

/// <summary>Unpacks photographs (JPEG, ISO/IEC 10918-1).</summary>
internal static class Photograph
{
    /// <summary>Bytes that one may take while it is unpacked.</summary>
    private const long Most = 64L << 20;

    /// <summary>Bytes of each number that is kept until all passes over it are made.</summary>
    private const int KeptSize = 2;

    /// <param name="mostAcross">It is unpacked to fewer points, down to an eighth, while it has more than so many from side to side.</param>
    /// <returns>Eight bits a number: grey, red, green and blue, or four inks. Null for one that is too large.</returns>
    public static PointGrid? Unpacked(ReadOnlyMemory<byte> packed, int mostAcross)
    {
        var reader = new jpeg_decompress_struct(new SilentErrors());
        reader.jpeg_stdio_src(new MemoryStream(packed.ToArray()));
        reader.jpeg_read_header(require_image: true);
        // One that grows clearer pass by pass is kept whole, at its full size; its head may say anything.
        if (reader.jpeg_has_multiple_scans() && (long)reader.Image_width * reader.Image_height * reader.Num_components * KeptSize > Most)
            return null;
        reader.Scale_num = 1;
        reader.Scale_denom = 1;
        while (reader.Scale_denom < 8 && Math.Max(reader.Image_width, reader.Image_height) / reader.Scale_denom > mostAcross)
            reader.Scale_denom *= 2;
        if ((long)(reader.Image_width / reader.Scale_denom) * (reader.Image_height / reader.Scale_denom) * reader.Num_components > Most)
            return null;
        reader.jpeg_start_decompress();
        var (width, height, parts) = (reader.Output_width, reader.Output_height, reader.Out_color_components);
        var bytes = new byte[width * height * parts];
        var row = new[] { new byte[width * parts] };
        while (reader.Output_scanline < height)
        {
            var at = reader.Output_scanline;
            if (reader.jpeg_read_scanlines(row, 1) != 1)
                return null;
            row[0].CopyTo(bytes, at * width * parts);
        }
        return new PointGrid(bytes, width, height, parts, 8, [], []);
    }

    /// <summary>What is damaged is thrown, and what is odd is told nobody.</summary>
    private sealed class SilentErrors : jpeg_error_mgr
    {
        public override void output_message()
        {
        }

        public override void emit_message(int msg_level)
        {
        }
    }
}
