using System.Collections.Immutable;
using Daxlin.Core.Pages;

namespace Daxlin.Reading;

/// <summary>Pages as bytes, to hand them from the process that reads to the one that captures.</summary>
/// <remarks>Both ends are always of one build, so the form carries no version.</remarks>
public static class PageStream
{
    public static void Write(BinaryWriter writer, ImmutableArray<Page> pages)
    {
        writer.Write7BitEncodedInt(pages.Length);
        foreach (var page in pages)
        {
            writer.Write7BitEncodedInt(page.Number);
            writer.Write(page.Width);
            writer.Write(page.Height);
            writer.Write((byte)page.Drawn);
            writer.Write7BitEncodedInt(page.Words.Length);
            foreach (var word in page.Words)
                Write(writer, word);
            writer.Write7BitEncodedInt(page.Strokes.Length);
            foreach (var stroke in page.Strokes)
                Write(writer, stroke.Box);
        }
    }

    public static ImmutableArray<Page> Read(BinaryReader reader)
    {
        var store = new WordStore();
        var pages = ImmutableArray.CreateBuilder<Page>(reader.Read7BitEncodedInt());
        for (var page = 0; page < pages.Capacity; page++)
        {
            var (number, width, height, drawn) = (reader.Read7BitEncodedInt(), reader.ReadDouble(), reader.ReadDouble(), (Drawn)reader.ReadByte());
            var words = ImmutableArray.CreateBuilder<Word>(reader.Read7BitEncodedInt());
            for (var word = 0; word < words.Capacity; word++)
                words.Add(ReadWord(reader, store));
            var strokes = ImmutableArray.CreateBuilder<Stroke>(reader.Read7BitEncodedInt());
            for (var stroke = 0; stroke < strokes.Capacity; stroke++)
                strokes.Add(new Stroke(ReadBox(reader)));
            pages.Add(new Page(number, width, height, words.MoveToImmutable(), strokes.MoveToImmutable()) { Drawn = drawn });
        }
        return pages.MoveToImmutable();
    }

    private static void Write(BinaryWriter writer, Word word)
    {
        writer.Write(word.Text);
        Write(writer, word.Box);
        writer.Write(word.Baseline);
        writer.Write(word.Size);
        writer.Write((byte)word.Turn);
        foreach (var stop in word.Stops.Span)
            writer.Write(stop);
    }

    private static Word ReadWord(BinaryReader reader, WordStore store)
    {
        var text = store.Text(reader.ReadString());
        var (box, baseline, size, turn) = (ReadBox(reader), reader.ReadDouble(), reader.ReadDouble(), (Turn)reader.ReadByte());
        var stops = store.Stops(text.Length);
        for (var stop = 0; stop < text.Length; stop++)
            stops.Span[stop] = reader.ReadDouble();
        return new Word(text, box, baseline, size, stops, turn);
    }

    private static void Write(BinaryWriter writer, Box box)
    {
        writer.Write(box.Left);
        writer.Write(box.Top);
        writer.Write(box.Right);
        writer.Write(box.Bottom);
    }

    private static Box ReadBox(BinaryReader reader) =>
        new(reader.ReadDouble(), reader.ReadDouble(), reader.ReadDouble(), reader.ReadDouble());
}
