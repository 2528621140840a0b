namespace Daxlin.Core.Pages;

/// <summary>A straight ruling drawn on the page: a line, or a rectangle so thin that it looks like one.</summary>
public sealed record Stroke(Box Box)
{
    public bool IsUpright => Box.Height > Box.Width;
}
