namespace Daxlin.Core.Posting.Layouts;

/// <summary>How letters become bytes, by the names of the IANA registry.</summary>
public enum TextEncoding
{
    Utf8,

    /// <summary>UTF-8 with a byte order mark in front, by which spreadsheets know it.</summary>
    Utf8Mark,

    Utf16,
    Windows1252,
    Iso88591,
    Ascii,
}
