# For a club that wants a container. Data live in the volume; other devices come in with the pass that is printed.
#   docker build -t fandle . && docker run -p 8000:8000 -v fandle:/data fandle
FROM python:3.13-slim

ENV PYTHONDONTWRITEBYTECODE=1 PYTHONUNBUFFERED=1 FANDLE_HOME=/data XDG_CACHE_HOME=/home/fandle/.cache
WORKDIR /app
COPY requirements requirements
RUN pip install --no-cache-dir --no-deps --require-hashes -r requirements/runtime.txt
COPY pyproject.toml LICENSE ./
COPY docs/package.md docs/package.md
COPY src src
RUN pip install --no-cache-dir --no-deps . \
  && useradd --create-home fandle \
  && mkdir /data && chown fandle /data
USER fandle
# compiled for the machine that builds: another processor compiles again at its first start
RUN python -m fandle.work.warm
VOLUME /data
EXPOSE 8000
HEALTHCHECK --interval=30s --timeout=5s CMD ["python", "-c", "import urllib.request as u; u.urlopen('http://127.0.0.1:8000/api/health')"]
CMD ["fandle", "serve", "--host", "0.0.0.0", "--port", "8000"]
