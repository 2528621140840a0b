namespace Daxlin.Scans;

/// <summary>What happened to a printed page on its way to a picture.</summary>
public enum ScanKind
{
    /// <summary>300 dots an inch, as it is.</summary>
    Clean,

    /// <summary>200 dots an inch with the grain of a lamp and a light JPEG's blocks.</summary>
    Noisy,

    /// <summary>300 dots an inch, turned by 2°.</summary>
    Skewed,

    /// <summary>Taken by hand: aslant, with a shadow over a corner and a page that curls.</summary>
    Photo,

    /// <summary>A fax of 204 by 98 dots an inch, black and white.</summary>
    Fax,

    /// <summary>A stamp and a pen's strokes over the text, 300 dots an inch.</summary>
    Stamped,
}
