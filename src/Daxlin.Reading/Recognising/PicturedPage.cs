using Daxlin.Reading.Pictures;

namespace Daxlin.Reading.Recognising;

/// <summary>A page of a document that is a picture: what it says has to be recognised.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Width">In points; 0 in a file that is a picture itself, which says how large it is only in dots.</param>
/// <param name="Height">In points.</param>
public sealed record PicturedPage(int Number, double Width, double Height)
{
    /// <summary>With how many dots an inch it is to be drawn; 0 in a file that is a picture itself, which is not drawn but unpacked.</summary>
    public double Dpi => Width > 0 ? PageRaster.DpiFor(Width, Height) : 0;
}
