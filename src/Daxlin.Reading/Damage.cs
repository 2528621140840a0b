namespace Daxlin.Reading;

/// <summary>Damage to a part that a document can be read without: a font's program, a colour, an attachment.</summary>
internal static class Damage
{
    /// <summary>Says that an error is such damage, and no limit that a file goes beyond.</summary>
    public static bool Is(Exception error) => error is not (UnreadableException or OutOfMemoryException or InsufficientExecutionStackException);

    /// <returns>Null for what is damaged.</returns>
    public static T? OrNull<T>(Func<T?> read)
        where T : class
    {
        try
        {
            return read();
        }
        catch (Exception error) when (Is(error))
        {
            return null;
        }
    }
}
