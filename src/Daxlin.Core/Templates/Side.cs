namespace Daxlin.Core.Templates;

/// <summary>On which side of its cue a value stands.</summary>
public enum Side
{
    /// <summary>To the right of it, on its line.</summary>
    Beside,

    /// <summary>Below it, in its column.</summary>
    Under,

    /// <summary>Over it, in its column.</summary>
    Above,

    /// <summary>To the left of it, on its line.</summary>
    Before,
}
