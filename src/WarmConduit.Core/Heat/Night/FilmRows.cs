namespace WarmConduit.Core.Heat.Night;

/// <summary>The films of many things, one after the other: those of thing n from <c>First(n)</c> up to <c>First(n + 1)</c>. Immutable.</summary>
internal sealed class FilmRows
{
    private readonly int[] _start;
    private readonly NightFilm[] _film;
    private readonly double[] _size;

    /// <summary>Throws <see cref="HeatNetworkException"/> naming what has a film that makes no sense.</summary>
    public FilmRows(IEnumerable<(string Place, IReadOnlyList<NightFilmed>? Films)> rows)
    {
        var (start, film, size) = (new List<int> { 0 }, new List<NightFilm>(), new List<double>());
        foreach (var (place, films) in rows)
        {
            foreach (var one in films ?? [])
            {
                one.Film.Check(place);
                HeatNumbers.NotNegative(place, "size of its film", one.Size);
                film.Add(one.Film);
                size.Add(one.Size);
            }
            start.Add(film.Count);
        }
        (_start, _film, _size) = ([.. start], [.. film], [.. size]);
    }

    public int Count => _film.Length;

    public int First(int n) => _start[n];

    public bool Has(int n) => _start[n + 1] > _start[n];

    /// <summary>W/K of all films of a thing; <paramref name="surfaceShare"/> has a value for each film of all things, kept from one call to the next.</summary>
    public double WPerK(int n, double innerC, double airC, double windMPerS, double[] surfaceShare)
    {
        double sum = 0;
        for (int f = _start[n]; f < _start[n + 1]; f++) sum += _size[f] * _film[f].WPerK(innerC, airC, windMPerS, ref surfaceShare[f]);
        return sum;
    }

    /// <summary>W/K of all films of a thing, and W by how much colder than the air the sky is to them.</summary>
    public (double WPerK, double SkyW) UnderSky(int n, double innerC, double airC, double skyC, double windMPerS, double[] surfaceShare)
    {
        double sum = 0, sky = 0;
        for (int f = _start[n]; f < _start[n + 1]; f++)
        {
            double g = _size[f] * _film[f].WPerK(innerC, airC, windMPerS, ref surfaceShare[f]);
            sum += g;
            if (_film[f] is WallFilm wall) sky += g * wall.SkyShiftK(airC, skyC, windMPerS);
        }
        return (sum, sky);
    }

    public double MostWPerK(int n, double windMPerS)
    {
        double sum = 0;
        for (int f = _start[n]; f < _start[n + 1]; f++) sum += _size[f] * _film[f].MostWPerK(windMPerS);
        return sum;
    }

    /// <summary>A guess of where surfaces lie, to begin with.</summary>
    public double[] Shares()
    {
        var shares = new double[_film.Length];
        Array.Fill(shares, 0.5);
        return shares;
    }
}
