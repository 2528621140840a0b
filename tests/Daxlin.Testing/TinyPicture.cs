using BitMiracle.LibJpeg.Classic;

namespace Daxlin.Testing;

/// <summary>Writes pictures as cameras do.</summary>
public static class TinyPicture
{
    /// <summary>A photograph of columns that are black or white.</summary>
    /// <param name="parts">1 for grey, 3 for red, green and blue.</param>
    /// <param name="growsClearer">It is written pass over pass.</param>
    public static byte[] Photograph(int width, int height, int parts, Func<int, bool> isDark, bool growsClearer = false)
    {
        var writer = new jpeg_compress_struct(new jpeg_error_mgr());
        using var written = new MemoryStream();
        writer.jpeg_stdio_dest(written);
        (writer.Image_width, writer.Image_height, writer.Input_components, writer.In_color_space) = (width, height, parts, parts == 1 ? J_COLOR_SPACE.JCS_GRAYSCALE : J_COLOR_SPACE.JCS_RGB);
        writer.jpeg_set_defaults();
        if (growsClearer)
            writer.jpeg_simple_progression();
        writer.jpeg_start_compress(true);
        for (var row = 0; row < height; row++)
            writer.jpeg_write_scanlines([[.. Enumerable.Range(0, width).SelectMany(column => Enumerable.Repeat(isDark(column) ? (byte)0 : (byte)255, parts))]], 1);
        writer.jpeg_finish_compress();
        return written.ToArray();
    }
}
